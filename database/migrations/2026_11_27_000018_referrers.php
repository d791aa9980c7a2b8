<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** The page that somebody came from: where nothing else tells it, that does. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('arrivals', fn (Blueprint $t) => $t->string('referrer', 2000)->default('')->after('url'));
    }

    public function down(): void
    {
        Schema::table('arrivals', fn (Blueprint $t) => $t->dropColumn('referrer'));
    }
};
