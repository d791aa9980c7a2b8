<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::table('clients', function (Blueprint $t) {
            $t->boolean('needs_approval')->default(false); // changes go out only after another person's yes
            $t->json('hosts')->nullable(); // where test clicks may go
        });
        Schema::table('changes', function (Blueprint $t) {
            // while it is worked out: what is being done, and how many ads are through
            $t->string('step', 60)->default('');
            $t->unsignedInteger('through')->default(0);
            $t->unsignedSmallInteger('draft')->default(1); // how often it has been worked out
            $t->dateTime('drafted_at', 3)->nullable(); // when it began to be worked out from what stood there
            $t->string('stage', 8)->default('rest'); // trial first where there is one
            $t->dateTime('finished_at', 3)->nullable()->change();
            $t->boolean('checked')->default(false); // since it was started last: nothing to be written has moved
            $t->json('scope')->nullable(); // the nodes that may be written to; null: the whole account
            $t->foreignId('approved_by')->nullable()->constrained('users');
            $t->timestamp('approved_at')->nullable();
            $t->json('trial')->nullable(); // what the test clicks of the trial found
            $t->json('verified')->nullable(); // what those after the rest found
            $t->foreignId('takes_back')->nullable()->constrained('changes');
            // the first of those drafted together, for several accounts
            $t->foreignId('together')->nullable()->constrained('changes');
            $t->string('worker', 40)->nullable(); // who is at it, and until when it is his
            $t->dateTime('worker_until', 3)->nullable();
            $t->index(['account_id', 'status']);
            $t->index(['status', 'worker_until']);
        });
        Schema::table('change_writes', function (Blueprint $t) {
            $t->string('stage', 8)->default('rest'); // trial, rest, or after: what the trial left is tidied up
            $t->unsignedSmallInteger('turn')->default(1); // how often it has been begun anew
            $t->index(['node_id', 'kind', 'name']);
        });
        Schema::table('ledger', function (Blueprint $t) {
            $t->unsignedSmallInteger('turn')->default(1);
            $t->boolean('found')->default(false); // not written by us: found when reading back
            $t->unique(['write_id', 'turn', 'found']); // each turn of a write is entered once
            $t->dropUnique(['write_id']);
            $t->index(['account_id', 'at']);
            $t->index(['change_id']);
        });
        Schema::create('change_looks', function (Blueprint $t) {
            $t->foreignId('change_id')->constrained()->cascadeOnDelete();
            $t->foreignId('user_id')->constrained()->cascadeOnDelete();
            $t->unsignedBigInteger('node_id'); // the sample that was opened
            $t->primary(['change_id', 'user_id', 'node_id']);
        });
        Schema::create('paces', function (Blueprint $t) {
            $t->string('what', 60)->primary(); // requests of one kind to one platform
            $t->dateTime('next', 6); // when the next one may go out
        });
        Schema::create('filters', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->foreignId('account_id')->constrained()->cascadeOnDelete();
            $t->string('name');
            $t->json('filter'); // nodes, words, state
            $t->timestamps();
        });
        Schema::create('mappings', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->string('name');
            $t->string('dialect', 40);
            $t->json('columns'); // id, name, level, result, message, and the slots → the sheet's heading
            $t->timestamps();
        });
        // the end of its first import: nothing is known of the time before
        Schema::table('accounts', fn (Blueprint $t) => $t->timestamp('known_since')->nullable());
        // or sheet: texts go out in a file that a person takes there
        Schema::table('connections', fn (Blueprint $t) => $t->string('writes_by', 8)->default('api'));
        Schema::table('texts', fn (Blueprint $t) => $t->index(['node_id', 'since']));
        Schema::table('nodes', function (Blueprint $t) {
            $t->string('standing', 12)->default('live'); // live, review, rejected: what the platform says of an ad
        });
    }
};
