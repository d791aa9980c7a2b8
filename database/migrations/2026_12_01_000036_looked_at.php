<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** When a look for what is wrong came to its end; begun later than that, it is under way. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('clients', fn (Blueprint $t) => $t->timestamp('troubles_done_at')->nullable());
    }

    public function down(): void
    {
        Schema::table('clients', fn (Blueprint $t) => $t->dropColumn('troubles_done_at'));
    }
};
