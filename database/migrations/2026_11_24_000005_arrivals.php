<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('collectors', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->string('site', 64);
            $t->text('credentials');
            $t->unsignedBigInteger('read_up_to')->default(0);
            $t->text('problem')->nullable();
            $t->timestamp('read_at')->nullable();
        });
        Schema::create('arrivals', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->foreignId('collector_id')->constrained()->cascadeOnDelete();
            $t->unsignedBigInteger('external_id');
            $t->dateTime('at', 3);
            $t->text('url');
            $t->string('source')->default('');
            $t->string('medium')->default('');
            $t->string('campaign')->default('');
            $t->string('term')->default('');
            $t->string('content')->default('');
            $t->string('click_id', 128)->default('');
            $t->foreignId('node_id')->nullable()->constrained()->nullOnDelete();
            $t->string('matched_by', 16)->nullable(); // click-id, parameters
            $t->unique(['collector_id', 'external_id']);
            $t->index(['client_id', 'at']);
            $t->index(['client_id', 'source', 'medium', 'campaign']);
        });
    }
};
