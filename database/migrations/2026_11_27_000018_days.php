<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
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
        Schema::table('arrivals', function (Blueprint $t) {
            $t->string('referrer', 2000)->default('')->after('url');
            $t->string('visitor', 64)->nullable(); // a random word of the site's own
            // where it came from: by its keys, its click ID alone, or the referrer
            $t->string('told_source')->default('(direct)');
            $t->string('told_medium')->default('(none)');
            $t->string('family', 32)->default(''); // of the platform whose click ID it has
            $t->index(['collector_id', 'matched_by']);
            $t->index(['collector_id', 'visitor', 'at']);
        });
        DB::table('arrivals')
            ->where(static fn ($of) => $of->where('source', '<>', '')->orWhere('medium', '<>', ''))
            ->update(['told_source' => DB::raw('source'), 'told_medium' => DB::raw('medium')]);
        Schema::table('collectors', function (Blueprint $t) {
            $t->text('credentials')->nullable()->change();
            $t->string('key', 32)->nullable()->unique(); // pages report to us by it; null: an analytics that is read
            $t->json('hosts')->nullable(); // that they are on
            $t->timestamp('created_at')->nullable();
        });
        // what pages reported and could not be taken, by day and why
        Schema::create('refusals', function (Blueprint $t) {
            $t->foreignId('collector_id')->constrained()->cascadeOnDelete();
            $t->date('day');
            $t->string('why', 40);
            $t->unsignedInteger('n');
            $t->primary(['collector_id', 'day', 'why']);
        });
    }

    public function down(): void
    {
        Schema::drop('refusals');
        Schema::table('collectors', fn (Blueprint $t) => $t->dropColumn(['key', 'hosts', 'created_at']));
        Schema::table('arrivals', function (Blueprint $t) {
            $t->dropIndex(['collector_id', 'matched_by']);
            $t->dropIndex(['collector_id', 'visitor', 'at']);
            $t->dropColumn(['referrer', 'visitor', 'told_source', 'told_medium', 'family']);
        });
        foreach (['agreements' => ['begun'], 'plans' => ['begun', 'from_day']] as $table => $columns) {
            Schema::table($table, function (Blueprint $t) use ($columns): void {
                $t->dropIndex(['begun', 'from_day']);
                $t->dropColumn($columns);
            });
        }
    }
};
