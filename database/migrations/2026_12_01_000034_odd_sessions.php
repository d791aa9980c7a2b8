<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What is odd about how a session began, beside its values. Sessions that are there are looked at when they change. */
return new class extends Migration {
    private const TABLES = ['site_sessions', 'meant_sessions'];

    public function up(): void
    {
        foreach (self::TABLES as $table) {
            Schema::table($table, static function (Blueprint $t): void {
                $t->string('doubled', 64)->default(''); // keys that arrived more than once, as channel rules call them
                $t->string('lost_from', 191)->default(''); // the own host that its visitor came from as a stranger
            });
        }
    }

    public function down(): void
    {
        foreach (self::TABLES as $table) {
            Schema::table($table, static fn (Blueprint $t) => $t->dropColumn(['doubled', 'lost_from']));
        }
    }
};
