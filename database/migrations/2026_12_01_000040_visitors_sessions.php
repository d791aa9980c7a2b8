<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Whose click was before a conversion is told from the index of visitors' sessions alone. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('site_sessions', function (Blueprint $t) {
            $t->index(['collector_id', 'visitor', 'begin', 'views', 'node_id', 'day'], 'site_sessions_of_visitors');
            $t->dropIndex(['collector_id', 'visitor', 'begin']);
        });
    }

    public function down(): void
    {
        Schema::table('site_sessions', function (Blueprint $t) {
            $t->index(['collector_id', 'visitor', 'begin']);
            $t->dropIndex('site_sessions_of_visitors');
        });
    }
};
