<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Results by week, added up out of those by day: long periods are read out of few rows. */
return new class extends Migration {
    public function up(): void
    {
        DB::statement('create table rollup_weeks like rollups'); // day: the week's Monday
        // what the versions of a week's days came to when it was added up
        Schema::create('rolled_weeks', function (Blueprint $t) {
            $t->foreignId('set_id')->constrained('rollup_sets')->cascadeOnDelete();
            $t->date('day');
            $t->unsignedBigInteger('version');
            $t->primary(['set_id', 'day']);
        });
    }

    public function down(): void
    {
        Schema::drop('rolled_weeks');
        Schema::drop('rollup_weeks');
    }
};
