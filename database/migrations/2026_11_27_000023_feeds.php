<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Product lists: where they come from, what came, what is done to their links, and what is handed on. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('feeds', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->string('name', 120);
            $t->string('address', 2000)->nullable(); // null: its files are put in by people
            $t->unsignedInteger('every_minutes')->nullable(); // null: by hand, or on a call
            $t->json('reads')->nullable(); // how it is read; null: nothing has come yet
            $t->string('secret', 40)->unique(); // in the address where it is handed on
            $t->string('call', 40)->unique(); // in the address that has it fetched anew
            $t->unsignedBigInteger('kept_id')->nullable(); // the copy that counts
            $t->unsignedBigInteger('applied_id')->nullable(); // the draft whose rules count
            $t->string('etag', 300)->nullable(); // as its host said
            $t->string('modified', 100)->nullable();
            $t->dateTime('fetched_at')->nullable();
            $t->dateTime('next_at')->nullable()->index();
            $t->string('problem', 500)->nullable();
            $t->char('out_digest', 32)->nullable(); // of what is handed on
            $t->dateTime('out_at')->nullable();
            $t->unsignedInteger('out_items')->nullable();
            $t->unsignedInteger('out_changed')->nullable();
            $t->string('ending', 8)->nullable();
            $t->timestamps();
            $t->dateTime('gone_at')->nullable();
            $t->index(['client_id', 'gone_at']);
        });
        Schema::create('feed_copies', function (Blueprint $t) {
            $t->id();
            $t->foreignId('feed_id')->constrained()->cascadeOnDelete();
            $t->dateTime('came_at');
            $t->unsignedBigInteger('bytes');
            $t->unsignedInteger('items')->nullable();
            $t->char('digest', 32);
            $t->string('state', 8); // kept, held, past
            $t->string('why', 500)->nullable(); // it is held
        });
        Schema::create('feed_drafts', function (Blueprint $t) {
            $t->id();
            $t->foreignId('feed_id')->constrained()->cascadeOnDelete();
            $t->unsignedBigInteger('copy_id');
            $t->json('rules');
            $t->json('reads');
            $t->string('why', 500)->default('');
            $t->string('state', 10); // working, ready, failed, applied, discarded
            $t->json('result')->nullable();
            $t->string('problem', 500)->nullable();
            $t->foreignId('made_by')->nullable()->constrained('users')->nullOnDelete();
            $t->foreignId('decided_by')->nullable()->constrained('users')->nullOnDelete();
            $t->dateTime('made_at');
            $t->dateTime('decided_at')->nullable();
            $t->index(['feed_id', 'id']);
        });
    }

    public function down(): void
    {
        foreach (['feed_drafts', 'feed_copies', 'feeds'] as $table) {
            Schema::drop($table);
        }
    }
};
