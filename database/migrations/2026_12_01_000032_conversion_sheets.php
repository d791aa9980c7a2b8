<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        // log: of a web server; conversions: a sheet of orders
        Schema::table('log_files', fn (Blueprint $t) => $t->string('kind', 12)->default('log'));
    }

    public function down(): void
    {
        Schema::table('log_files', fn (Blueprint $t) => $t->dropColumn('kind'));
    }
};
