<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Logs of web servers that people put in, and the salts by which visitors of a day are told apart. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('log_files', function (Blueprint $t) {
            $t->id();
            $t->foreignId('collector_id')->constrained()->cascadeOnDelete();
            $t->string('name', 255);
            $t->unsignedBigInteger('bytes');
            $t->dateTime('came_at');
            $t->string('state', 8); // waiting, read, failed
            $t->unsignedInteger('lines')->default(0);
            $t->unsignedInteger('taken')->default(0);
            $t->json('left_out')->nullable(); // why → lines
            $t->string('problem', 500)->nullable();
        });
        // thrown away a day after they were drawn: who somebody was can't be found out again
        Schema::create('log_salts', function (Blueprint $t) {
            $t->foreignId('collector_id')->constrained()->cascadeOnDelete();
            $t->date('day');
            $t->char('salt', 32);
            $t->dateTime('drawn_at')->index();
            $t->primary(['collector_id', 'day']);
        });
    }

    public function down(): void
    {
        Schema::drop('log_salts');
        Schema::drop('log_files');
    }
};
