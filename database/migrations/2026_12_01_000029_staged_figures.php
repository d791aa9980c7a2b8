<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        // what sheets say of elements by day, until they are brought in
        DB::statement(
            'create table staged_figures (
                intake_id bigint unsigned not null,
                hash binary(16) not null, -- of the element, as in staged
                day date not null,
                impressions decimal(30,9) not null,
                clicks decimal(30,9) not null,
                cost decimal(30,9) not null,
                conversions decimal(30,9) not null,
                value decimal(30,9) not null,
                primary key (intake_id, hash, day),
                foreign key (intake_id) references intakes (id) on delete cascade
            ) engine=InnoDB',
        );
    }

    public function down(): void
    {
        Schema::drop('staged_figures');
    }
};
