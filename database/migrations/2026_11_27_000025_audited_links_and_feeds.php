<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What is wrong with links, lists and what arrives is kept, so that it is told where the day begins. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('links', function (Blueprint $t) {
            $t->string('fault', 300)->nullable(); // the gravest thing that is wrong with it
            $t->index(['client_id', 'fault']);
        });
        Schema::table('feeds', fn (Blueprint $t) => $t->json('out_problems')->nullable());
        Schema::table('troubles', function (Blueprint $t) {
            $t->unsignedBigInteger('account_id')->nullable()->change(); // null: it is of a list, or of links
            $t->foreignId('feed_id')->nullable()->constrained()->cascadeOnDelete();
            $t->json('about')->nullable(); // what arrives wrong: its kind, key and value
        });
        Schema::table('clients', fn (Blueprint $t) => $t->dateTime('wrong_at')->nullable());
    }

    public function down(): void
    {
        Schema::table('clients', fn (Blueprint $t) => $t->dropColumn('wrong_at'));
        DB::table('troubles')->whereNull('account_id')->delete();
        Schema::table('troubles', function (Blueprint $t) {
            $t->dropConstrainedForeignId('feed_id');
            $t->dropColumn('about');
            $t->unsignedBigInteger('account_id')->nullable(false)->change();
        });
        Schema::table('feeds', fn (Blueprint $t) => $t->dropColumn('out_problems'));
        Schema::table('links', function (Blueprint $t) {
            $t->dropIndex(['client_id', 'fault']);
            $t->dropColumn('fault');
        });
    }
};
