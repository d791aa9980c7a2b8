<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What elements were called before, and until when: reports of that time still speak of them so. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('former_names', function (Blueprint $t) {
            $t->id();
            $t->foreignId('account_id')->constrained()->cascadeOnDelete();
            $t->foreignId('node_id')->constrained()->cascadeOnDelete();
            $t->string('name');
            $t->dateTime('until', 3);
            $t->index(['account_id', 'name']);
            $t->index(['node_id', 'until']);
        });
        DB::statement("insert into former_names (account_id, node_id, name, until)
            select account_id, node_id, `before`, found_at from outside_changes where kind = 'name'
            and `before` is not null");
        Schema::table('nodes', static fn (Blueprint $t) => $t->index(['account_id', 'name']));
    }

    public function down(): void
    {
        Schema::table('nodes', static fn (Blueprint $t) => $t->dropIndex(['account_id', 'name']));
        Schema::drop('former_names');
    }
};
