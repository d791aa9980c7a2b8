<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * A digest of what sheets said of an element, for as long as it is as they said: a sheet that says the same again need
 * not be compared with all that is known of it. Whatever becomes otherwise is no longer as it was said; of texts,
 * LiveTexts sees to it.
 */
return new class extends Migration {
    public function up(): void
    {
        // what rows have said is put away in another form: sheets that nobody has taken in yet are read again
        $open = DB::table('intakes')->whereIn('status', ['reading', 'read'])->pluck('id');
        DB::table('staged')->whereIn('intake_id', $open)->delete();
        DB::table('intakes')->whereIn('id', $open)->update(['status' => 'open', 'counts' => null]);
        DB::statement('alter table nodes add column said binary(16) null');
        // 1: it is as it was, and that is to be noted with its element
        DB::statement('alter table staged add column unsaid tinyint unsigned not null default 0');
        DB::unprepared(
            'create trigger nodes_as_said before update on nodes for each row
            if new.said is not null and new.said <=> old.said and not (
                new.name <=> old.name and new.type <=> old.type and new.standing <=> old.standing
                and new.gone_at <=> old.gone_at and new.published_name <=> old.published_name
                and new.facts <=> old.facts and new.keywords <=> old.keywords and new.parent_id <=> old.parent_id
            ) then set new.said = null; end if',
        );
    }

    public function down(): void
    {
        DB::unprepared('drop trigger nodes_as_said');
        DB::statement('alter table staged drop column unsaid');
        DB::statement('alter table nodes drop column said');
    }
};
