<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What sessions said by the other keys of plans, and what of each conversion is each item's: results are told by it. */
return new class extends Migration {
    private const BY_KEYS = ['site_sessions', 'meant_sessions', 'wanted_lines'];

    private const BY_ITEMS = ['shares', 'meant_shares'];

    public function up(): void
    {
        // keys that are or were in a plan, but for those that every record has a column for
        Schema::create('plan_keys', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->string('name', 191);
            $t->unique(['client_id', 'name']);
        });
        // as the last conversion that named it calls it
        Schema::create('item_names', function (Blueprint $t) {
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->string('item', 128);
            $t->string('name', 191);
            $t->primary(['client_id', 'item']);
        });
        foreach (self::BY_KEYS as $table) {
            Schema::table($table, fn (Blueprint $t) => $t->json('others')->nullable()); // number of a key → its value
        }
        foreach (self::BY_ITEMS as $table) {
            Schema::table($table, fn (Blueprint $t) => $t->json('items')->nullable()); // item, part, value, net of each
        }
        DB::statement(
            "insert ignore into item_names select c.client_id, i.item, i.name from conversions c
            join json_table(c.items, '$[*]' columns(item varchar(128) path '$.id', name varchar(191) path '$.name')) i
            where i.name is not null and i.item is not null order by c.at desc",
        );
        DB::statement(
            "insert into touched select collector_id, coalesce(concat('v', visitor), concat('a', arrival_id)), min(at)
            from conversions where items is not null group by 1, 2
            on duplicate key update since = least(touched.since, values(since))",
        );
    }

    public function down(): void
    {
        foreach (self::BY_KEYS as $table) {
            Schema::table($table, fn (Blueprint $t) => $t->dropColumn('others'));
        }
        foreach (self::BY_ITEMS as $table) {
            Schema::table($table, fn (Blueprint $t) => $t->dropColumn('items'));
        }
        Schema::drop('item_names');
        Schema::drop('plan_keys');
    }
};
