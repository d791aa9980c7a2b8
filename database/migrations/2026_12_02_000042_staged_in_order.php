<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * What rows said stands in the order in which it came: by their hashes, each row would be put somewhere else in a table
 * that is larger than memory.
 */
return new class extends Migration {
    public function up(): void
    {
        DB::statement(
            'alter table staged drop primary key, drop key intake_id_2, drop column odd,
            add primary key (intake_id, position), add unique key staged_hashes (intake_id, hash)',
        );
    }

    public function down(): void
    {
        DB::statement(
            'alter table staged drop primary key, drop key staged_hashes,
            add odd tinyint unsigned not null default 0, add primary key (intake_id, hash),
            add key intake_id_2 (intake_id, parent_hash)',
        );
    }
};
