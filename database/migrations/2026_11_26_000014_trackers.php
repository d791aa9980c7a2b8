<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Click trackers that a client's clicks pass: the client's own, in place of a list in a configuration file. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('trackers', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->string('host', 253);
            $t->string('parameter', 191); // that holds the destination
            $t->boolean('forwards'); // its other parameters travel on
            $t->json('adds'); // what it adds itself: key and text
            $t->unsignedInteger('revision')->default(1);
            $t->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $t->timestamps();
            $t->unique(['client_id', 'host']);
        });
        Schema::table('accounts', fn (Blueprint $t) => $t->dropColumn('hops'));
    }

    public function down(): void
    {
        Schema::drop('trackers');
        Schema::table('accounts', fn (Blueprint $t) => $t->json('hops')->default('[]'));
    }
};
