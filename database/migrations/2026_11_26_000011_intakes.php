<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Accounts from sheets: what was dropped, what its columns mean, and what its rows make, before anything is stored. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('connections', function (Blueprint $t) {
            $t->string('reads_by', 8)->default('api'); // api, or sheet: people bring files
            $t->json('shape')->nullable(); // what the files of the last import looked like
        });
        Schema::create('sheet_maps', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $t->string('dialect', 40);
            $t->string('title', 100);
            $t->json('document');
            $t->timestamps();
            $t->unique(['client_id', 'dialect', 'title']);
        });
        Schema::create('intakes', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $t->foreignId('account_id')->nullable()->constrained()->cascadeOnDelete();
            $t->foreignId('import_id')->nullable()->constrained()->nullOnDelete();
            $t->string('dialect', 40);
            $t->string('number', 191); // the account's
            $t->string('name');
            $t->string('status', 16);
            $t->unsignedInteger('revision')->default(1);
            $t->json('map')->nullable();
            $t->json('whole')->nullable();
            $t->json('tables')->nullable(); // what each looks like
            $t->json('counts')->nullable();
            $t->unsignedBigInteger('done')->default(0); // rows
            $t->text('problem')->nullable();
            $t->timestamps();
            $t->index(['client_id', 'status']);
        });
        Schema::create('intake_files', function (Blueprint $t) {
            $t->id();
            $t->foreignId('intake_id')->constrained()->cascadeOnDelete();
            $t->string('name');
            $t->unsignedBigInteger('bytes');
            $t->unsignedBigInteger('received')->default(0);
            $t->timestamps();
        });
        // what the rows said of each element so far
        DB::statement(
            'create table staged (
                intake_id bigint unsigned not null,
                hash binary(16) not null,
                depth tinyint unsigned not null,
                level varchar(64) not null,
                external_id varchar(191) not null,
                parent_hash binary(16) null,
                position bigint unsigned not null,
                said longtext not null,
                odd tinyint unsigned not null, -- it is more than new, changed or the same
                fate varchar(8) null,
                primary key (intake_id, hash),
                key (intake_id, depth, position),
                key (intake_id, parent_hash),
                foreign key (intake_id) references intakes (id) on delete cascade
            ) engine=InnoDB default character set utf8mb4 collate utf8mb4_nopad_bin',
        );
        Schema::create('intake_problems', function (Blueprint $t) {
            $t->id();
            $t->foreignId('intake_id')->constrained()->cascadeOnDelete();
            $t->string('code', 24);
            $t->string('severity', 8);
            $t->unsignedSmallInteger('table');
            $t->unsignedInteger('row');
            $t->string('column')->nullable();
            $t->text('says');
            $t->index(['intake_id', 'code', 'id']);
        });
        Schema::table('nodes', function (Blueprint $t) {
            $t->string('level', 64)->change();
        });
    }

    public function down(): void
    {
        Schema::drop('intake_problems');
        Schema::drop('staged');
        Schema::drop('intake_files');
        Schema::drop('intakes');
        Schema::drop('sheet_maps');
        Schema::table('connections', function (Blueprint $t) {
            $t->dropColumn(['reads_by', 'shape']);
        });
    }
};
