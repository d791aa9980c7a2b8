<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Spans of weeks stand beside days, so that one reading has both. */
return new class extends Migration {
    private const COLUMNS = 'd0, d1, d2, d3, currency, sessions, views, one_page, new_visitors, part, value, net,
        impressions, clicks, cost';

    public function up(): void
    {
        DB::statement(
            'alter table rollups add column weeks tinyint unsigned not null default 0 after set_id,
            drop primary key, add primary key (set_id, weeks, day, id)', // weeks: 0 is a day
        );
        DB::statement(
            'insert into rollups (set_id, weeks, day, '.self::COLUMNS.') select set_id, weeks, day, '.self::COLUMNS
                .' from rollup_weeks',
        );
        Schema::drop('rollup_weeks');
    }

    public function down(): void
    {
        DB::statement('create table rollup_weeks like rollups');
        DB::statement(
            'insert into rollup_weeks (set_id, weeks, day, '.self::COLUMNS.') select set_id, weeks, day, '.self::COLUMNS
                .' from rollups where weeks > 0',
        );
        DB::statement('delete from rollups where weeks > 0');
        DB::statement(
            'alter table rollups drop primary key, add primary key (set_id, day, id), drop column weeks',
        );
    }
};
