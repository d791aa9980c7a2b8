<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * What clicks brought: arrivals in partitions by day, conversions among them, the sessions that they make, what
 * conversions count for, and what platforms say of each ad and day.
 */
return new class extends Migration {
    private const COLUMNS =
        'id, client_id, collector_id, external_id, at, url, referrer, visitor, told_source, told_medium, '
        .'family, source, medium, campaign, term, content, click_id, node_id, matched_by';

    public function up(): void
    {
        // an arrival is its collector's and its number there, whenever it comes again
        Schema::create('arrival_ids', function (Blueprint $t) {
            $t->unsignedBigInteger('collector_id');
            $t->unsignedBigInteger('external_id');
            $t->date('day');
            $t->primary(['collector_id', 'external_id']);
            $t->index('day');
        });
        Schema::rename('arrivals', 'arrivals_before');
        Schema::table('arrivals_before', function (Blueprint $t) {
            $t->dropForeign('arrivals_client_id_foreign');
            $t->dropForeign('arrivals_collector_id_foreign');
            $t->dropForeign('arrivals_node_id_foreign');
        });
        DB::statement(
            "create table arrivals (
                id bigint unsigned not null auto_increment,
                client_id bigint unsigned not null,
                collector_id bigint unsigned not null,
                external_id bigint unsigned not null,
                at datetime(3) not null,
                kind enum('view', 'convert') not null default 'view',
                url text not null,
                referrer varchar(2000) not null default '',
                visitor varchar(64) null,
                device varchar(16) not null default '',
                told_source varchar(255) not null default '(direct)',
                told_medium varchar(255) not null default '(none)',
                family varchar(32) not null default '',
                platform varchar(40) not null default '',
                source varchar(255) not null default '',
                medium varchar(255) not null default '',
                campaign varchar(255) not null default '',
                term varchar(255) not null default '',
                content varchar(255) not null default '',
                click_id varchar(128) not null default '',
                keyword varchar(255) not null default '',
                placement varchar(255) not null default '',
                node_id bigint unsigned null,
                matched_by varchar(16) null,
                primary key (id, at),
                key (client_id, at),
                key (collector_id, matched_by),
                key (collector_id, visitor, at)
            ) partition by range (to_days(at)) (
                partition p_before values less than (to_days('".gmdate('Y-m-d')."')),
                partition p_ahead values less than maxvalue
            )",
        );
        DB::statement('insert into arrivals ('.self::COLUMNS.') select '.self::COLUMNS.' from arrivals_before');
        DB::statement(
            'insert into arrival_ids select collector_id, external_id, date(at) from arrivals_before',
        );
        Schema::drop('arrivals_before');
        DB::unprepared('drop procedure if exists arrival_days');
        // the application itself may alter no table, nor delete what arrived
        DB::unprepared(
            "create procedure arrival_days(in ahead int, in keep_from date) sql security definer
            begin
                declare day date;
                declare last int;
                declare old varchar(64);
                select max(cast(partition_description as unsigned)) into last from information_schema.partitions
                    where table_schema = database() and table_name = 'arrivals' and partition_description <> 'MAXVALUE';
                set day = from_days(last);
                while day < date_add(current_date, interval ahead day) do
                    set @days = concat('alter table arrivals reorganize partition p_ahead into (partition p',
                        date_format(day, '%Y%m%d'), ' values less than (', to_days(day) + 1,
                        '), partition p_ahead values less than maxvalue)');
                    execute immediate @days;
                    set day = date_add(day, interval 1 day);
                end while;
                delete from arrivals where at < keep_from and at < (
                    select from_days(min(cast(partition_description as unsigned))) from information_schema.partitions
                    where table_schema = database() and table_name = 'arrivals' and partition_name <> 'p_ahead');
                repeat
                    set old = null;
                    select partition_name into old from information_schema.partitions
                        where table_schema = database() and table_name = 'arrivals'
                            and partition_name not in ('p_before', 'p_ahead')
                            and cast(partition_description as unsigned) <= to_days(keep_from)
                        order by cast(partition_description as unsigned) limit 1;
                    if old is not null then
                        set @days = concat('alter table arrivals drop partition ', old);
                        execute immediate @days;
                    end if;
                until old is null end repeat;
                delete from arrival_ids where day < keep_from;
            end",
        );
        DB::unprepared('call arrival_days(8, date_sub(current_date, interval 4000 day))');

        Schema::create('conversions', function (Blueprint $t) {
            $t->unsignedBigInteger('arrival_id')->primary();
            $t->unsignedBigInteger('client_id');
            $t->unsignedBigInteger('collector_id');
            $t->dateTime('at', 3);
            $t->string('visitor', 64)->nullable();
            $t->string('order_number', 128)->nullable();
            $t->string('click_id', 128)->default('');
            $t->bigInteger('value')->nullable(); // minor units
            $t->char('currency', 3)->nullable();
            $t->string('name', 120)->default('');
            $t->json('items')->nullable();
            $t->boolean('is_test')->default(false);
            $t->boolean('is_repeated')->default(false); // its order was counted before
            $t->dateTime('came_at', 3);
            $t->unsignedBigInteger('session_id')->nullable(); // the one that it is in
            $t->index(['client_id', 'at']);
            $t->index(['collector_id', 'order_number']);
            $t->index(['collector_id', 'visitor', 'at']);
            $t->index(['client_id', 'click_id']);
        });
        Schema::create('refunds', function (Blueprint $t) {
            $t->unsignedBigInteger('collector_id');
            $t->unsignedBigInteger('external_id');
            $t->string('order_number', 128);
            $t->dateTime('at', 3);
            $t->bigInteger('value');
            $t->primary(['collector_id', 'external_id']);
            $t->index(['collector_id', 'order_number']);
        });
        // visitors of whom something new is known, since when; or single arrivals of nobody who is known again
        Schema::create('touched', function (Blueprint $t) {
            $t->unsignedBigInteger('collector_id');
            $t->string('who', 72);
            $t->dateTime('since', 3);
            $t->primary(['collector_id', 'who']);
        });
        Schema::create('site_sessions', function (Blueprint $t) {
            $t->unsignedBigInteger('id')->primary(); // of its first event
            $t->unsignedBigInteger('client_id');
            $t->unsignedBigInteger('collector_id');
            $t->string('visitor', 64)->nullable();
            $t->dateTime('begin', 3);
            $t->dateTime('end', 3);
            $t->date('day'); // in the client's time zone
            $t->unsignedInteger('views');
            $t->boolean('is_new')->nullable(); // null: nobody can say
            $t->boolean('is_tracked');
            $t->string('how', 12);
            $t->string('channel', 120);
            $t->string('source')->default('');
            $t->string('medium')->default('');
            $t->string('campaign')->default('');
            $t->string('term')->default('');
            $t->string('content')->default('');
            $t->string('platform', 40)->default('');
            $t->string('click_id', 128)->default('');
            $t->string('keyword')->default('');
            $t->string('placement')->default('');
            $t->string('device', 16)->default('');
            $t->string('landing', 500)->default('');
            self::elements($t);
            $t->index(['client_id', 'day']);
            $t->index(['collector_id', 'visitor', 'begin']);
            $t->index(['client_id', 'click_id']);
            $t->index(['node_id', 'day']);
        });
        // what of a conversion counts for a session, or for an ad whose click never arrived
        Schema::create('shares', function (Blueprint $t) {
            $t->unsignedBigInteger('conversion_id');
            $t->unsignedSmallInteger('n');
            $t->unsignedBigInteger('client_id');
            $t->date('day'); // the conversion's, in the client's time zone
            $t->unsignedBigInteger('session_id')->nullable();
            $t->unsignedInteger('part'); // of the conversion, in millionths
            $t->bigInteger('value'); // minor units
            $t->bigInteger('net'); // without what was taken back
            $t->char('currency', 3)->nullable();
            self::elements($t);
            $t->primary(['conversion_id', 'n']);
            $t->index(['client_id', 'day']);
            $t->index('session_id');
        });
        // what a platform says of an ad on a day
        Schema::create('figures', function (Blueprint $t) {
            $t->unsignedBigInteger('client_id');
            $t->date('day'); // the account's
            self::elements($t, given: true);
            $t->unsignedBigInteger('impressions');
            $t->unsignedBigInteger('clicks');
            $t->bigInteger('cost'); // minor units
            $t->char('currency', 3);
            $t->unsignedInteger('conversions');
            $t->bigInteger('value');
            $t->primary(['account_id', 'day', 'node_id']);
            $t->index(['client_id', 'day']);
        });
        // where the clicks of an ad are wanted to be counted, by the plan
        Schema::create('wanted_lines', function (Blueprint $t) {
            $t->unsignedBigInteger('node_id')->primary();
            $t->unsignedBigInteger('client_id')->index();
            $t->string('platform', 40);
            $t->string('channel', 120);
            $t->string('source')->default('');
            $t->string('medium')->default('');
            $t->string('campaign')->default('');
            $t->string('content')->default('');
            // broken: a click ends before the page; untracked: nothing tells whose it was
            $t->string('reach', 12)->default('ok');
        });
        Schema::create('result_views', function (Blueprint $t) {
            $t->id();
            $t->foreignId('client_id')->constrained()->cascadeOnDelete();
            $t->foreignId('user_id')->constrained()->cascadeOnDelete();
            $t->string('name', 120);
            $t->json('query');
            $t->boolean('is_shared')->default(false);
            $t->timestamps();
            $t->unique(['client_id', 'user_id', 'name']);
        });
        Schema::table('collectors', function (Blueprint $t) {
            $t->unsignedBigInteger('refunds_up_to')->default(0);
            $t->string('token_hash', 64)->nullable(); // of what servers hand conversions in by
        });
        Schema::table('clients', fn (Blueprint $t) => $t->json('watching')->nullable());
        Schema::table('accounts', function (Blueprint $t) {
            $t->date('figures_to')->nullable(); // the last day of which the platform was asked
            $t->timestamp('figures_at')->nullable();
            $t->string('figures_problem', 500)->nullable();
        });
        // all that has arrived so far
        DB::statement(
            "insert into touched select collector_id, coalesce(concat('v', visitor), concat('a', id)), min(at)
            from arrivals group by 1, 2",
        );
    }

    public function down(): void
    {
        Schema::table('accounts', fn (Blueprint $t) => $t->dropColumn([
            'figures_to',
            'figures_at',
            'figures_problem',
        ]));
        Schema::table('clients', fn (Blueprint $t) => $t->dropColumn('watching'));
        Schema::table('collectors', fn (Blueprint $t) => $t->dropColumn(['refunds_up_to', 'token_hash']));
        DB::unprepared('drop procedure if exists arrival_days');
        foreach (
            [
                'result_views',
                'wanted_lines',
                'figures',
                'shares',
                'site_sessions',
                'touched',
                'refunds',
                'conversions',
                'arrival_ids',
            ] as $table
        ) {
            Schema::drop($table);
        }
        DB::table('arrivals')->where('kind', 'convert')->delete();
        DB::statement('alter table arrivals remove partitioning');
        DB::statement('delete from arrivals where client_id not in (select id from clients)
            or collector_id not in (select id from collectors)');
        Schema::table('arrivals', function (Blueprint $t) {
            $t->dropColumn(['kind', 'device', 'platform', 'keyword', 'placement']);
            $t->dropPrimary();
            $t->primary('id');
            $t->unique(['collector_id', 'external_id']);
            $t->foreign('client_id')->references('id')->on('clients')->cascadeOnDelete();
            $t->foreign('collector_id')->references('id')->on('collectors')->cascadeOnDelete();
            $t->foreign('node_id')->references('id')->on('nodes')->nullOnDelete();
        });
    }

    /** An ad and what stands above it. */
    private static function elements(Blueprint $t, bool $given = false): void
    {
        foreach (['account_id', 'campaign_id', 'group_id', 'node_id'] as $column) {
            $t->unsignedBigInteger($column)->nullable(
                ! $given || in_array($column, ['campaign_id', 'group_id'], true),
            );
        }
    }
};
