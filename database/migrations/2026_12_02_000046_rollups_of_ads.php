<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * Results are added up by all that campaigns, groups or ads are told by together, each list of values with a number.
 * What was added up otherwise is thrown away; it is added up anew when it is asked for. Currencies are compared as
 * bytes.
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
    }

    public function down(): void
    {
        Schema::drop('rollup_ads');
        self::forget();
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
