<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What changed on a platform without us, and imports that begin by themselves to find it. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('outside_changes', function (Blueprint $t) {
            $t->id();
            $t->foreignId('account_id')->constrained()->restrictOnDelete();
            $t->foreignId('node_id')->constrained()->restrictOnDelete();
            $t->foreignId('import_id')->constrained()->restrictOnDelete(); // that found it, or found it changed again
            $t->string('kind', 12); // of a text, or name, type, standing, place, new, gone, back
            $t->string('name', 191)->default(''); // of a custom parameter or setting
            $t->text('before')->nullable();
            $t->text('after')->nullable();
            $t->dateTime('found_at', 3);
            $t->boolean('judged')->default(false); // is it known what it does to the proof?
            $t->unsignedInteger('breaks')->default(0); // ads that are not proven any more because of it
            $t->unsignedInteger('mends')->default(0); // ads that are proven again because of it
            $t->string('state', 8)->default('open'); // open, accepted, returned, undone
            $t->foreignId('change_id')->nullable()->constrained()->nullOnDelete(); // that puts it back
            $t->foreignId('user_id')->nullable()->constrained()->nullOnDelete(); // who has decided
            $t->dateTime('decided_at', 3)->nullable();
            $t->index(['account_id', 'state', 'breaks']);
            $t->index(['account_id', 'judged']);
            $t->index(['node_id', 'kind', 'name']);
        });
        Schema::table('connections', function (Blueprint $t) {
            $t->unsignedSmallInteger('every_hours')->nullable(); // null: only by hand
            $t->unsignedTinyInteger('quiet_from')->nullable(); // hours of the client's day without imports
            $t->unsignedTinyInteger('quiet_until')->nullable();
            $t->dateTime('next_at')->nullable()->index();
        });
    }

    public function down(): void
    {
        Schema::drop('outside_changes');
        Schema::table('connections', function (Blueprint $t) {
            $t->dropColumn(['every_hours', 'quiet_from', 'quiet_until', 'next_at']);
        });
    }
};
