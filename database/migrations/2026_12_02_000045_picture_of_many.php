<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What stands below an element, in order, with all that the picture of the account draws of it. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('nodes', function (Blueprint $t) {
            $t->index(
                [
                    'account_id',
                    'parent_id',
                    'gone_at',
                    'position',
                    'is_ad',
                    'depth',
                    'ads',
                    'proven',
                    'broken',
                    'untracked',
                ],
                'nodes_below',
            );
            $t->dropIndex(['account_id', 'parent_id', 'gone_at', 'position']);
        });
    }

    public function down(): void
    {
        Schema::table('nodes', function (Blueprint $t) {
            $t->index(['account_id', 'parent_id', 'gone_at', 'position']);
            $t->dropIndex('nodes_below');
        });
    }
};
