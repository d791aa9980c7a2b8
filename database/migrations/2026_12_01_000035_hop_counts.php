<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What click trackers say they sent on, and which ads' clicks pass which of them. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('hop_counts', function (Blueprint $t) {
            $t->foreignId('tracker_id')->constrained()->cascadeOnDelete();
            $t->date('day');
            $t->unsignedBigInteger('clicks');
            $t->primary(['tracker_id', 'day']);
        });
        Schema::table('wanted_lines', function (Blueprint $t) {
            $t->foreignId('tracker_id')->nullable()->constrained()->nullOnDelete();
        });
        Schema::table('stair_lines', fn (Blueprint $t) => $t->unsignedBigInteger('tracker_id')->nullable());
    }

    public function down(): void
    {
        Schema::table('stair_lines', fn (Blueprint $t) => $t->dropColumn('tracker_id'));
        Schema::table('wanted_lines', fn (Blueprint $t) => $t->dropConstrainedForeignId('tracker_id'));
        Schema::drop('hop_counts');
    }
};
