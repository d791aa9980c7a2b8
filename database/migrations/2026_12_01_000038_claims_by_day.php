<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What platforms claim that clicks have brought, beside the clicks; days are added up anew for it. */
return new class extends Migration {
    public function up(): void
    {
        DB::table('stair_days')->delete();
        Schema::table('stair_lines', function (Blueprint $t) {
            $t->unsignedBigInteger('conversions')->default(0);
            $t->bigInteger('value')->default(0); // in the currency of the cost
        });
    }

    public function down(): void
    {
        Schema::table('stair_lines', fn (Blueprint $t) => $t->dropColumn(['conversions', 'value']));
    }
};
