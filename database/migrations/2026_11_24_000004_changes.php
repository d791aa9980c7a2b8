<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('changes', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->foreignId('account_id')->constrained()->cascadeOnDelete();
            $t->string('title');
            $t->text('reason');
            $t->string('status', 16);
            $t->unsignedInteger('plan_revision');
            $t->json('policy');
            $t->json('story')->nullable(); // counts, samples, what is unmet, kept and overridden
            $t->text('problem')->nullable();
            $t->foreignId('user_id')->constrained();
            $t->foreignId('applied_by')->nullable()->constrained('users');
            $t->timestamp('applied_at')->nullable();
            $t->timestamp('finished_at')->nullable();
            $t->timestamps();
            $t->index(['client_id', 'status']);
        });
        Schema::create('change_writes', function (Blueprint $t) {
            $t->id();
            $t->foreignId('change_id')->constrained()->cascadeOnDelete();
            $t->unsignedInteger('position');
            $t->foreignId('node_id')->constrained()->cascadeOnDelete();
            $t->string('kind', 12);
            $t->string('name', 64)->default('');
            $t->text('before')->nullable();
            $t->text('after')->nullable();
            $t->string('state', 12)->default('waiting'); // waiting, sent, written, verified, differs, failed
            $t->string('batch', 64)->nullable(); // the idempotency key it is sent under
            $t->text('problem')->nullable();
            $t->unique(['change_id', 'position']);
            $t->index(['change_id', 'state', 'position']);
        });
        Schema::create('ledger', function (Blueprint $t) {
            $t->id();
            $t->unsignedBigInteger('client_id');
            $t->unsignedBigInteger('account_id');
            $t->unsignedBigInteger('node_id');
            $t->string('kind', 12);
            $t->string('name', 64)->default('');
            $t->text('before')->nullable();
            $t->text('after')->nullable();
            $t->unsignedBigInteger('user_id');
            $t->unsignedBigInteger('change_id');
            $t->unsignedBigInteger('write_id')->unique(); // each write is entered once
            $t->dateTime('at', 3);
            $t->index(['client_id', 'at']);
            $t->index(['node_id', 'at']);
        });
        foreach (['update', 'delete'] as $verb) {
            DB::unprepared(
                "create trigger ledger_no_{$verb} before {$verb} on ledger for each row signal sqlstate '45000' set "
                    ."message_text = 'the ledger is append-only'",
            );
        }
    }
};
