<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What could be told of ads' clicks on days on which they said something else than today. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('former_reaches', function (Blueprint $t) {
            $t->foreignId('node_id')->constrained()->cascadeOnDelete();
            $t->date('since');
            $t->date('until'); // the last day; those of an ad do not overlap
            $t->string('reach', 10);
            $t->primary(['node_id', 'until']);
        });
    }

    public function down(): void
    {
        Schema::drop('former_reaches');
    }
};
