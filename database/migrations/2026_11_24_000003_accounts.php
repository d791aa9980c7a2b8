<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('connections', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->string('dialect', 40);
            $t->string('title');
            $t->text('credentials');
            $t->string('only_accounts')->nullable();
            $t->timestamp('imported_at')->nullable();
            $t->timestamps();
        });
        Schema::create('imports', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->foreignId('connection_id')->constrained()->cascadeOnDelete();
            $t->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $t->string('status', 16);
            $t->unsignedInteger('total')->default(0);
            $t->unsignedInteger('done')->default(0);
            $t->string('step')->default('');
            $t->text('problem')->nullable();
            $t->timestamp('finished_at')->nullable();
            $t->timestamps();
            $t->index(['client_id', 'status']);
        });
        Schema::create('accounts', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->foreignId('connection_id')->constrained()->cascadeOnDelete();
            $t->string('dialect', 40);
            $t->string('external_id', 64);
            $t->string('name');
            $t->json('settings');
            $t->json('hops');
            $t->unsignedInteger('plan_revision')->nullable(); // the plan that the nodes' states are about
            $t->timestamp('imported_at')->nullable();
            $t->timestamps();
            $t->unique(['connection_id', 'external_id']);
        });
        Schema::create('nodes', function (Blueprint $t) {
            $t->id();
            $t->foreignId('account_id')->constrained()->cascadeOnDelete();
            $t->unsignedBigInteger('parent_id')->nullable();
            $t->string('level', 24);
            $t->unsignedTinyInteger('depth');
            $t->unsignedInteger('position');
            $t->string('external_id', 64);
            $t->string('name');
            $t->string('published_name')->nullable();
            $t->string('type', 24)->nullable();
            $t->json('facts')->nullable();
            $t->json('keywords')->nullable();
            $t->unsignedInteger('version');
            $t->unsignedBigInteger('import_id'); // the import that saw it last
            $t->boolean('is_ad');
            $t->string('state', 12)->nullable(); // ads: proven, broken, untracked
            $t->string('fault', 500)->nullable(); // ads: the first thing that is wrong
            $t->string('fault_keys')->default(''); // ads: all keys that are wrong, comma-separated
            $t->unsignedInteger('ads')->default(0); // wider levels: how many ads are below, by state
            $t->unsignedInteger('proven')->default(0);
            $t->unsignedInteger('broken')->default(0);
            $t->unsignedInteger('untracked')->default(0);
            $t->unique(['account_id', 'level', 'external_id']);
            $t->index(['account_id', 'parent_id', 'position']);
            $t->index(['account_id', 'state', 'position']);
            $t->index(['account_id', 'depth']);
            $t->index('external_id');
            $t->fullText('name');
        });
        // slot texts and custom parameters, each with the time in which it was live
        Schema::create('texts', function (Blueprint $t) {
            $t->id();
            $t->foreignId('node_id')->constrained()->cascadeOnDelete();
            $t->string('kind', 12); // template, suffix, landing, custom
            $t->string('name', 64)->default(''); // of a custom parameter
            $t->text('text');
            $t->dateTime('since', 3);
            $t->dateTime('until', 3)->nullable();
            $t->index(['node_id', 'until']);
        });
        Schema::create('plans', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->unsignedInteger('revision');
            $t->json('document');
            $t->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $t->timestamp('created_at')->useCurrent();
            $t->unique(['client_id', 'revision']);
        });
    }
};
