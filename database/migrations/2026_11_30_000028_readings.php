<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Days of a client read as they were meant: sessions and what counts for them, put together anew; what was healed. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('readings', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $t->date('from_day');
            $t->date('to_day');
            $t->string('names', 8); // today: plan and names as they are now; then: as they were on the day
            $t->string('status', 12);
            $t->unsignedBigInteger('done')->default(0); // arrivals
            $t->unsignedBigInteger('total')->default(0);
            $t->unsignedBigInteger('views')->default(0); // of ads that are known
            $t->unsignedBigInteger('healed')->default(0); // of these, read otherwise than they arrived
            $t->unsignedBigInteger('unknown')->default(0); // of these, with a key of which nothing can be said
            $t->text('problem')->nullable();
            $t->timestamps();
            $t->index(['client_id', 'from_day']);
        });
        DB::statement('create table meant_sessions like site_sessions');
        DB::statement('alter table meant_sessions drop primary key,
            add reading_id bigint unsigned not null first, add primary key (reading_id, id),
            add key (reading_id, day), add key (reading_id, collector_id, visitor, begin),
            add key (reading_id, click_id)');
        DB::statement('create table meant_shares like shares');
        DB::statement('alter table meant_shares drop primary key,
            add reading_id bigint unsigned not null first, add primary key (reading_id, conversion_id, n),
            add key (reading_id, day), add key (reading_id, session_id)');
        Schema::create('heals', function (Blueprint $t) {
            $t->unsignedBigInteger('reading_id');
            $t->string('name', 120); // of the key
            $t->string('arrived', 255);
            $t->string('meant', 255);
            $t->unsignedBigInteger('views');
            $t->primary(['reading_id', 'name', 'arrived', 'meant']);
        });
    }

    public function down(): void
    {
        foreach (['heals', 'meant_shares', 'meant_sessions', 'readings'] as $table) {
            Schema::drop($table);
        }
    }
};
