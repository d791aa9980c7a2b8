<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What became of clicks, by day and campaign: a balance of months is read out of few rows. */
return new class extends Migration {
    public function up(): void
    {
        DB::statement(
            'create table stair_lines (
                id bigint unsigned not null auto_increment,
                client_id bigint unsigned not null,
                day date not null,
                platform varchar(64) not null,
                account_id bigint unsigned not null,
                campaign_id bigint unsigned null, -- null: the platform has no campaigns
                step varchar(12) not null,
                channel varchar(120) not null default \'\', -- of those that arrived elsewhere
                currency char(3) not null default \'\', -- of the cost
                n bigint not null,
                cost bigint not null default 0,
                primary key (client_id, day, id), -- a period is read in one go
                key (id),
                foreign key (client_id) references clients (id)
            ) engine=InnoDB',
        );
        // the version of a day's records when it was added up
        Schema::create('stair_days', function (Blueprint $t) {
            $t->foreignId('client_id')->constrained();
            $t->date('day');
            $t->unsignedBigInteger('version');
            $t->boolean('doubted')->default(false); // a click on it may have been made before, on a day that changed
            $t->primary(['client_id', 'day']);
        });
        // for the ads of one campaign
        foreach (['figures', 'site_sessions'] as $table) {
            Schema::table($table, static fn (Blueprint $t) => $t->index(['campaign_id', 'day']));
        }
    }

    public function down(): void
    {
        foreach (['figures', 'site_sessions'] as $table) {
            Schema::table($table, static fn (Blueprint $t) => $t->dropIndex(['campaign_id', 'day']));
        }
        Schema::drop('stair_days');
        Schema::drop('stair_lines');
    }
};
