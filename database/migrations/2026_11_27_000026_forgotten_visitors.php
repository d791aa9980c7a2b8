<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** What has arrived of a visitor may be deleted when somebody asks for it; of all else the application deletes nothing. */
return new class extends Migration {
    public function up(): void
    {
        DB::unprepared('drop procedure if exists forget_visitor');
        DB::unprepared(
            'create procedure forget_visitor(in site bigint unsigned, in who varchar(64), in arrival bigint unsigned)
            sql security definer
            begin
                delete from arrivals where collector_id = site
                    and ((who is not null and visitor = who) or (who is null and id = arrival));
            end',
        );
    }

    public function down(): void
    {
        DB::unprepared('drop procedure if exists forget_visitor');
    }
};
