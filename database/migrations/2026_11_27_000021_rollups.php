<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Results by day, added up once for each set of dimensions that is asked for, and again for the days that change. */
return new class extends Migration {
    public function up(): void
    {
        // how often what results are made of has changed on a day
        Schema::create('result_days', function (Blueprint $t) {
            $t->unsignedBigInteger('client_id');
            $t->date('day');
            $t->unsignedBigInteger('version')->default(1);
            $t->primary(['client_id', 'day']);
        });
        Schema::create('rollup_sets', function (Blueprint $t) {
            $t->id();
            $t->unsignedBigInteger('client_id');
            $t->string('dimensions', 160); // in the order of d0, d1 …
            $t->date('first_day'); // the earliest that was asked for
            $t->date('asked_on');
            $t->unique(['client_id', 'dimensions']);
        });
        // which version of a day a set has
        Schema::create('rollup_days', function (Blueprint $t) {
            $t->foreignId('set_id')->constrained('rollup_sets')->cascadeOnDelete();
            $t->date('day');
            $t->unsignedBigInteger('version');
            $t->primary(['set_id', 'day']);
        });
        Schema::create('rollup_values', function (Blueprint $t) {
            $t->id();
            $t->unsignedBigInteger('client_id');
            $t->string('value', 500);
            $t->unique(['client_id', 'value']);
        });
        // d0 to d3: numbers of values; 0: nothing
        DB::statement(
            'create table rollups (
                set_id bigint unsigned not null,
                day date not null,
                id bigint unsigned not null auto_increment,
                d0 bigint unsigned not null,
                d1 bigint unsigned not null,
                d2 bigint unsigned not null,
                d3 bigint unsigned not null,
                currency char(3) not null,
                sessions bigint unsigned not null default 0,
                views bigint unsigned not null default 0,
                one_page bigint unsigned not null default 0,
                new_visitors bigint unsigned not null default 0,
                part bigint unsigned not null default 0,
                value bigint null,
                net bigint null,
                impressions bigint unsigned not null default 0,
                clicks bigint unsigned not null default 0,
                cost bigint null,
                primary key (set_id, day, id),
                key (id)
            )',
        );
        foreach (['site_sessions', 'shares', 'figures'] as $table) {
            DB::statement("insert ignore into result_days select distinct client_id, day, 1 from {$table}");
        }
    }

    public function down(): void
    {
        foreach (['rollups', 'rollup_values', 'rollup_days', 'rollup_sets', 'result_days'] as $table) {
            Schema::drop($table);
        }
    }
};
