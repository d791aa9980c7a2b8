<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What is wrong over all accounts of a client, by cause and with its history; and proof as it was each day. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('troubles', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->foreignId('account_id')->constrained()->cascadeOnDelete();
            $t->string('kind', 16);
            $t->char('hash', 32); // of what it is, wherever it is met again
            $t->string('what', 500);
            $t->unsignedBigInteger('node_id')->nullable(); // one that shows it
            $t->unsignedInteger('ads')->default(0);
            $t->unsignedBigInteger('clicks')->default(0); // of the last 30 days, as the platform says
            $t->bigInteger('cost')->default(0); // of those, in minor units of the client's currency
            $t->dateTime('first_at');
            $t->dateTime('returned_at')->nullable();
            $t->dateTime('mended_at')->nullable();
            $t->date('accepted_until')->nullable();
            $t->string('accepted_why', 500)->nullable();
            $t->foreignId('accepted_by')->nullable()->constrained('users')->nullOnDelete();
            $t->unique(['client_id', 'hash']);
            $t->index(['client_id', 'mended_at', 'cost']);
        });
        Schema::create('proof_days', function (Blueprint $t) {
            $t->foreignId('account_id')->constrained()->cascadeOnDelete();
            $t->date('day');
            $t->unsignedInteger('proven');
            $t->unsignedInteger('broken');
            $t->unsignedInteger('untracked');
            $t->primary(['account_id', 'day']);
        });
        // views of people who did not consent, counted without anything about them
        Schema::create('withheld', function (Blueprint $t) {
            $t->foreignId('collector_id')->constrained()->cascadeOnDelete();
            $t->date('day');
            $t->unsignedInteger('n');
            $t->primary(['collector_id', 'day']);
        });
        Schema::table('clients', fn (Blueprint $t) => $t->dateTime('troubles_at')->nullable());
        DB::statement(
            'insert into proof_days select account_id, current_date, proven, broken, untracked from nodes
            where parent_id is null and depth = 0 and gone_at is null',
        );
    }

    public function down(): void
    {
        Schema::table('clients', fn (Blueprint $t) => $t->dropColumn('troubles_at'));
        Schema::drop('withheld');
        Schema::drop('proof_days');
        Schema::drop('troubles');
    }
};
