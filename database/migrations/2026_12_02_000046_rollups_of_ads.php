<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * Results are added up by all that campaigns, groups or ads are told by together, each list of values with a number.
 * What was added up otherwise is thrown away; it is added up anew when it is asked for. Currencies are compared as
 * bytes. Spans may have more weeks than one.
 */
return new class extends Migration {
    private const COLUMNS = [
        'channel',
        'source',
        'medium',
        'campaign',
        'platform',
        'account',
        'ad_campaign',
        'content',
        'ad_group',
        'ad',
    ];

    public function up(): void
    {
        Schema::create('rollup_ads', function (Blueprint $t) {
            $t->id();
            $t->unsignedBigInteger('client_id');
            $t->binary('digest', length: 16, fixed: true);
            foreach (self::COLUMNS as $column) {
                $t->unsignedBigInteger($column); // numbers of values; 0: nothing
            }
            $t->unique(['client_id', 'digest']);
        });
        self::forget();
        foreach (['rollups', 'rollup_weeks'] as $table) {
            DB::statement(
                "alter table {$table} modify currency char(3) character set ascii collate ascii_bin not null",
            );
        }
        DB::statement(
            'alter table rollup_weeks add column weeks tinyint unsigned not null after set_id,
            drop primary key, add primary key (set_id, weeks, day, id)',
        );
        // a key that begins with the set stays there all the time: sets are referred to
        DB::statement(
            'alter table rolled_weeks add column weeks tinyint unsigned not null after set_id,
            drop primary key, add primary key (set_id, weeks, day)',
        );
    }

    public function down(): void
    {
        Schema::drop('rollup_ads');
        self::forget();
        foreach (['rollup_weeks' => 'set_id, day, id', 'rolled_weeks' => 'set_id, day'] as $table => $key) {
            DB::statement("alter table {$table} drop primary key, add primary key ({$key}), drop column weeks");
        }
        foreach (['rollups', 'rollup_weeks'] as $table) {
            DB::statement("alter table {$table} modify currency char(3) not null");
        }
    }

    private static function forget(): void
    {
        foreach (['rollups', 'rollup_weeks'] as $table) {
            DB::table($table)->truncate();
        }
        DB::table('rollup_sets')->delete(); // with the days and weeks that each has
    }
};
