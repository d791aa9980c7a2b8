<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * A day with very many ads is added up account by account: up to which, and to which version of its records. What is
 * asked of accounts and platforms is read out of far fewer rows than there are campaigns.
 */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('stair_days', function (Blueprint $t) {
            $t->unsignedBigInteger('coming')->nullable();
            $t->unsignedBigInteger('through')->default(0);
        });
        DB::table('stair_days')->delete();
        DB::statement('create table stair_totals like stair_lines');
        Schema::table('stair_totals', function (Blueprint $t) {
            $t->dropColumn('campaign_id');
            $t->foreign('client_id')->references('id')->on('clients');
        });
    }

    public function down(): void
    {
        Schema::drop('stair_totals');
        Schema::table('stair_days', fn (Blueprint $t) => $t->dropColumn(['coming', 'through']));
    }
};
