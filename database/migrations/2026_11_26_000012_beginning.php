<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Clients and people of one's own: who may make a client, and links by which people come in. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('users', function (Blueprint $t) {
            $t->boolean('founder')->default(false); // may make clients
        });
        Schema::table('clients', function (Blueprint $t) {
            $t->string('time_zone', 64)->default('UTC');
            $t->char('currency', 3)->default('EUR');
        });
        Schema::create('invitations', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->nullable()->constrained()->cascadeOnDelete(); // null: to the installation
            $t->foreignId('user_id')->nullable()->constrained()->nullOnDelete(); // who invites
            $t->string('email')->nullable();
            $t->string('role', 16)->nullable();
            $t->char('digest', 64)->unique();
            $t->timestamp('expires_at');
            $t->timestamp('used_at')->nullable();
            $t->foreignId('used_by')->nullable()->constrained('users')->nullOnDelete();
            $t->timestamps();
            $t->index(['client_id', 'used_at']);
        });
    }

    public function down(): void
    {
        Schema::drop('invitations');
        Schema::table('clients', function (Blueprint $t) {
            $t->dropColumn(['time_zone', 'currency']);
        });
        Schema::table('users', function (Blueprint $t) {
            $t->dropColumn('founder');
        });
    }
};
