<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Links that people place themselves, their short addresses, and how often those are opened. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('short_hosts', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->string('host', 191)->unique();
            $t->timestamps();
        });
        Schema::create('links', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->string('title', 200)->default('');
            $t->text('landing');
            $t->json('pairs');
            $t->text('url');
            $t->char('sameness', 32); // of links that lead to the same page with the same pairs
            $t->char('fits', 32); // of sessions that begin by it
            $t->string('host', 191)->default(''); // of its short address; empty: this installation's own
            $t->string('code', 40)->nullable();
            $t->boolean('forwards')->default(false); // what is asked for behind the code goes on to the page
            $t->dateTime('ends_at')->nullable();
            $t->foreignId('made_by')->nullable()->constrained('users')->nullOnDelete();
            $t->timestamps();
            $t->dateTime('gone_at')->nullable();
            $t->unique(['host', 'code']);
            $t->index(['client_id', 'gone_at', 'id']);
            $t->index(['client_id', 'sameness']);
            $t->index(['client_id', 'fits']);
        });
        Schema::create('link_moves', function (Blueprint $t) {
            $t->id();
            $t->foreignId('link_id')->constrained()->cascadeOnDelete();
            $t->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $t->dateTime('at');
            $t->text('before');
            $t->text('after');
            $t->string('why', 500)->default('');
        });
        // how often a short address was opened, without who; programs that say what they are apart
        Schema::create('link_days', function (Blueprint $t) {
            $t->unsignedBigInteger('link_id');
            $t->date('day'); // in the client's time zone
            $t->unsignedInteger('people')->default(0);
            $t->unsignedInteger('programs')->default(0);
            $t->primary(['link_id', 'day']);
        });
        // what the redirector wrote down, each file once
        Schema::create('link_counts', function (Blueprint $t) {
            $t->string('file', 64)->primary();
            $t->dateTime('counted_at')->index();
        });
        Schema::table('site_sessions', function (Blueprint $t) {
            $t->unsignedBigInteger('link_id')->nullable();
            $t->index(['link_id', 'day']);
        });
    }

    public function down(): void
    {
        Schema::table('site_sessions', function (Blueprint $t) {
            $t->dropIndex(['link_id', 'day']);
            $t->dropColumn('link_id');
        });
        foreach (['link_counts', 'link_days', 'link_moves', 'links', 'short_hosts'] as $table) {
            Schema::drop($table);
        }
    }
};
