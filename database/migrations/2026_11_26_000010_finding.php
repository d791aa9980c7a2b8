<?php

use App\Accounts\NameWords;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Elements are found by the beginnings of words, by the beginning of their number and by its end, at any size. */
return new class extends Migration {
    public function up(): void
    {
        DB::statement(
            'create table name_words (
                account_id bigint unsigned not null,
                word varchar(32) character set utf8mb4 collate utf8mb4_unicode_ci not null,
                node_id bigint unsigned not null,
                primary key (account_id, word, node_id),
                key (node_id, word)
            ) engine=InnoDB default character set utf8mb4 collate utf8mb4_nopad_bin',
        );
        DB::table('nodes')
            ->select('id', 'account_id', 'name')
            ->chunkById(2000, static fn ($nodes) => NameWords::add($nodes->all()));
        Schema::table('nodes', function (Blueprint $t) {
            $t->dropFullText(['name']);
            $t->dropIndex(['external_id']);
            $t->string('id_backwards', 191)->virtualAs('reverse(external_id)');
            $t->index(['account_id', 'external_id']);
            $t->index(['account_id', 'id_backwards']);
            // pages are read from these alone, and what is gone is passed over in them
            $t->index(['account_id', 'parent_id', 'gone_at', 'position']);
            $t->index(['account_id', 'state', 'gone_at', 'position']);
            $t->dropIndex(['account_id', 'parent_id', 'position']);
            $t->dropIndex(['account_id', 'state', 'position']);
        });
    }

    public function down(): void
    {
        Schema::table('nodes', function (Blueprint $t) {
            $t->index(['account_id', 'parent_id', 'position']);
            $t->index(['account_id', 'state', 'position']);
            $t->dropIndex(['account_id', 'parent_id', 'gone_at', 'position']);
            $t->dropIndex(['account_id', 'state', 'gone_at', 'position']);
            $t->dropIndex(['account_id', 'external_id']);
            $t->dropIndex(['account_id', 'id_backwards']);
            $t->dropColumn('id_backwards');
            $t->index('external_id');
            $t->fullText('name');
        });
        Schema::drop('name_words');
    }
};
