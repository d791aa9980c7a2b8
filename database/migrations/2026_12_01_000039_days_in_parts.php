<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** A day with very many ads is added up account by account: up to which, and to which version of its records. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('stair_days', function (Blueprint $t) {
            $t->unsignedBigInteger('coming')->nullable();
            $t->unsignedBigInteger('through')->default(0);
        });
    }

    public function down(): void
    {
        Schema::table('stair_days', fn (Blueprint $t) => $t->dropColumn(['coming', 'through']));
    }
};
