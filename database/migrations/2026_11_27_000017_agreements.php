<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What a client's people agree on beside the plan: words, channels. Each in revisions, each from a day on. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('agreements', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->string('kind', 16);
            $t->unsignedInteger('revision');
            $t->date('from_day'); // in the client's time zone
            $t->json('document');
            $t->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $t->timestamp('created_at')->useCurrent();
            $t->unique(['client_id', 'kind', 'revision']);
        });
    }

    public function down(): void
    {
        Schema::drop('agreements');
    }
};
