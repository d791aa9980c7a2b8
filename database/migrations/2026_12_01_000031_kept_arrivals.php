<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** A client may keep raw records for a shorter time than others: they are let go some at a time, none of this month. */
return new class extends Migration {
    public function up(): void
    {
        DB::unprepared('drop procedure if exists let_arrivals_go');
        DB::unprepared(
            'create procedure let_arrivals_go(in of_client bigint unsigned, in keep_from date, in most int)
            sql security definer
            begin
                delete from arrivals where client_id = of_client
                    and at < least(keep_from, date_sub(current_date, interval 30 day)) order by at limit most;
            end',
        );
    }

    public function down(): void
    {
        DB::unprepared('drop procedure if exists let_arrivals_go');
    }
};
