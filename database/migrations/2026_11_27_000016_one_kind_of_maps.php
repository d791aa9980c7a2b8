<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What a sheet's columns mean is said by sheet maps alone. */
return new class extends Migration {
    public function up(): void
    {
        Schema::drop('mappings');
    }

    public function down(): void
    {
        Schema::create('mappings', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->string('name', 100);
            $t->string('dialect', 40);
            $t->json('columns');
            $t->timestamps();
        });
    }
};
