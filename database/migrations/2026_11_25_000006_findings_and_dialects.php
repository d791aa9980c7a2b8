<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        // what was found when the account was last looked at, the worst first
        Schema::create('findings', function (Blueprint $t) {
            $t->id();
            $t->foreignId('account_id')->constrained()->cascadeOnDelete();
            $t->unsignedInteger('position');
            $t->string('code', 40);
            $t->string('severity', 8);
            $t->foreignId('node_id')->nullable()->constrained()->nullOnDelete(); // the first that shows it
            $t->string('kind', 12)->nullable(); // of the text: template, suffix, landing, custom
            $t->string('name', 64)->default(''); // of the custom parameter
            $t->unsignedInteger('at')->nullable();
            $t->unsignedInteger('length')->nullable();
            $t->string('key')->nullable();
            $t->text('reason');
            $t->string('fix_says')->nullable();
            $t->text('fix_text')->nullable();
            $t->unsignedInteger('count'); // how many show it
            $t->index(['account_id', 'position']);
        });
        // platforms that a client's people have described themselves
        Schema::create('own_dialects', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->string('name', 40);
            $t->unsignedInteger('revision');
            $t->json('document');
            $t->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $t->timestamps();
            $t->unique(['client_id', 'name']);
        });
    }
};
