<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/**
 * What is agreed on counts from a day on, the plan too; what arrives keeps the page that somebody came from, which
 * tells the channel where nothing else does.
 */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('plans', function (Blueprint $t) {
            $t->date('from_day')->nullable(); // in the client's time zone; null: ever since
            $t->boolean('begun')->default(true); // its day has come, and accounts were proven against it
            $t->index(['begun', 'from_day']);
        });
        Schema::table('agreements', function (Blueprint $t) {
            $t->boolean('begun')->default(true);
            $t->index(['begun', 'from_day']);
        });
        Schema::table('arrivals', fn (Blueprint $t) => $t->string('referrer', 2000)->default('')->after('url'));
    }

    public function down(): void
    {
        Schema::table('arrivals', fn (Blueprint $t) => $t->dropColumn('referrer'));
        foreach (['agreements' => ['begun'], 'plans' => ['begun', 'from_day']] as $table => $columns) {
            Schema::table($table, function (Blueprint $t) use ($columns): void {
                $t->dropIndex(['begun', 'from_day']);
                $t->dropColumn($columns);
            });
        }
    }
};
