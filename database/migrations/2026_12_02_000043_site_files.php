<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What the columns of a sheet say, that somebody has put in for a site. */
return new class extends Migration {
    public function up(): void
    {
        Schema::rename('log_files', 'site_files');
        Schema::table('site_files', fn (Blueprint $t) => $t->json('map')->nullable()); // EventTables
        DB::table('site_files')->where('kind', 'conversions')->update(['kind' => 'events']);
    }

    public function down(): void
    {
        DB::table('site_files')->where('state', 'asked')->delete();
        DB::table('site_files')->where('kind', 'events')->update(['kind' => 'conversions']);
        Schema::table('site_files', fn (Blueprint $t) => $t->dropColumn('map'));
        Schema::rename('site_files', 'log_files');
    }
};
