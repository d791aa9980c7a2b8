<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Connections to programs of one's own that speak the connector protocol. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('connections', function (Blueprint $t) {
            $t->string('address', 500)->nullable(); // null: the platform's own, of the configuration
            $t->boolean('clicks')->default(true); // it makes clicks for tests
        });
    }

    public function down(): void
    {
        Schema::table('connections', function (Blueprint $t) {
            $t->dropColumn(['address', 'clicks']);
        });
    }
};
