<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    /**
     * What platforms and people mean exactly is compared byte by byte; case is folded only where people search or sort.
     */
    private const EXACT = 'utf8mb4_nopad_bin';

    private const SEARCHED = 'utf8mb4_unicode_ci';

    /** Table and column of references along which nothing is deleted any more. */
    private const KEPT = [
        'accounts.client_id' => 'clients',
        'accounts.connection_id' => 'connections',
        'nodes.account_id' => 'accounts',
        'texts.node_id' => 'nodes',
        'plans.client_id' => 'clients',
        'changes.client_id' => 'clients',
        'changes.account_id' => 'accounts',
        'change_writes.change_id' => 'changes',
        'change_writes.node_id' => 'nodes',
        'arrivals.client_id' => 'clients',
        'arrivals.node_id' => 'nodes',
        'connections.client_id' => 'clients',
    ];

    public function up(): void
    {
        DB::statement('alter database character set utf8mb4 collate '.self::EXACT);
        foreach (Schema::getTableListing(Schema::getCurrentSchemaName(), schemaQualified: false) as $table) {
            DB::statement("alter table `{$table}` convert to character set utf8mb4 collate ".self::EXACT);
        }
        foreach (
            [
                'users' => 'name',
                'clients' => 'name',
                'nodes' => 'name',
                'changes' => 'title',
                'filters' => 'name',
                'mappings' => 'name',
                'accounts' => 'name',
                'connections' => 'title',
            ] as $table => $column
        ) {
            DB::statement(
                "alter table {$table} modify {$column} varchar(255) collate ".self::SEARCHED.' not null',
            );
        }
        foreach (self::KEPT as $from => $to) {
            [$table, $column] = explode('.', $from);
            Schema::table($table, static function (Blueprint $t) use ($column, $to): void {
                $t->dropForeign([$column]);
                $t->foreign($column)->references('id')->on($to)->restrictOnDelete();
            });
        }
        Schema::table('nodes', function (Blueprint $t) {
            $t->dateTime('gone_at', 3)->nullable(); // since when the platform does not have it any more
            $t->string('external_id', 191)->change();
            $t->string('type', 64)->nullable()->change();
            $t->index(['account_id', 'gone_at']);
            $t->index(['account_id', 'import_id']);
        });
        // what an import delivered and could not be taken over, with the reason
        Schema::create('set_apart', function (Blueprint $t) {
            $t->id();
            $t->foreignId('account_id')->constrained()->restrictOnDelete();
            $t->foreignId('import_id')->constrained()->restrictOnDelete();
            $t->string('level', 64);
            $t->text('external_id');
            $t->text('name');
            $t->text('why');
            $t->index(['account_id', 'import_id']);
        });
        Schema::table('imports', function (Blueprint $t) {
            $t->string('step', 600)->default('')->change();
            $t->text('notes')->nullable(); // what a person should know of an import that went well
        });
        // a place has one live text: the database says so
        Schema::table('texts', function (Blueprint $t) {
            $t->string('name', 191)->default('')->change();
            $t->boolean('live')->nullable()->virtualAs('if(`until` is null, 1, null)');
            $t->unique(['node_id', 'kind', 'name', 'live']);
        });
        foreach (['change_writes', 'ledger', 'findings'] as $table) {
            Schema::table($table, fn (Blueprint $t) => $t->string('name', 191)->default('')->change());
        }
        Schema::table('accounts', function (Blueprint $t) {
            // the proof that was begun last; older ones keep nothing any more
            $t->unsignedBigInteger('proof_turn')->default(0);
            $t->string('external_id', 191)->change();
            $t->dateTime('known_since', 3)->nullable()->change();
        });
        // how often a worker has begun a step of it without getting anywhere
        Schema::table('changes', fn (Blueprint $t) => $t->unsignedSmallInteger('begun')->default(0));
        Schema::table('change_looks', function (Blueprint $t) {
            $t->unsignedSmallInteger('draft')->default(1); // which working out the sample was of
            $t->dropForeign(['change_id']);
            $t->dropPrimary();
            $t->primary(['change_id', 'user_id', 'node_id', 'draft']);
            $t->foreign('change_id')->references('id')->on('changes')->restrictOnDelete();
        });
        DB::table('users')->update(['email' => DB::raw('lower(trim(email))')]);
        Schema::table('users', function (Blueprint $t) {
            $t->text('second_factor')->nullable(); // the shared secret, encrypted
            // the time step of the last code that was taken: none is taken twice
            $t->unsignedBigInteger('second_factor_step')->nullable();
            $t->json('recovery')->nullable(); // digests of the words that stand in for a code, each once
        });
        Schema::create('password_reset_tokens', function (Blueprint $t) {
            $t->string('email')->primary();
            $t->string('token');
            $t->timestamp('created_at')->nullable();
        });
        // who signed in, from where; who changed roles and rules; never altered
        Schema::create('audit', function (Blueprint $t) {
            $t->id();
            $t->dateTime('at', 3);
            $t->string('what', 40);
            $t->unsignedBigInteger('user_id')->nullable(); // who did it
            $t->unsignedBigInteger('client_id')->nullable();
            $t->string('address', 45)->nullable();
            $t->json('about');
            $t->index(['user_id', 'id']);
            $t->index(['client_id', 'id']);
        });
        foreach (['update', 'delete'] as $verb) {
            DB::unprepared(
                "create trigger audit_no_{$verb} before {$verb} on audit for each row signal sqlstate '45000' set "
                    ."message_text = 'the audit is append-only'",
            );
        }
        // what is done once in the life of an installation
        Schema::create('marks', function (Blueprint $t) {
            $t->string('name', 40)->primary();
            $t->dateTime('at', 3);
        });
        // that a kind of worker lives
        Schema::create('heartbeats', function (Blueprint $t) {
            $t->string('what', 40)->primary();
            $t->dateTime('at', 3);
        });
    }

    public function down(): void
    {
        foreach (['heartbeats', 'marks', 'audit', 'password_reset_tokens', 'set_apart'] as $table) {
            Schema::drop($table);
        }
        Schema::table(
            'users',
            fn (Blueprint $t) => $t->dropColumn(['second_factor', 'second_factor_step', 'recovery']),
        );
        Schema::table('changes', fn (Blueprint $t) => $t->dropColumn('begun'));
        Schema::table('accounts', fn (Blueprint $t) => $t->dropColumn('proof_turn'));
        Schema::table('imports', fn (Blueprint $t) => $t->dropColumn('notes'));
        DB::table('change_looks')->delete();
        Schema::table('change_looks', function (Blueprint $t) {
            $t->dropForeign(['change_id']);
            $t->dropPrimary();
            $t->dropColumn('draft');
            $t->primary(['change_id', 'user_id', 'node_id']);
            $t->foreign('change_id')->references('id')->on('changes')->cascadeOnDelete();
        });
        Schema::table('texts', function (Blueprint $t) {
            $t->dropForeign(['node_id']);
            $t->dropUnique(['node_id', 'kind', 'name', 'live']);
            $t->dropColumn('live');
            $t->foreign('node_id')->references('id')->on('nodes')->cascadeOnDelete();
        });
        Schema::table('nodes', function (Blueprint $t) {
            $t->dropForeign(['account_id']);
            $t->dropIndex(['account_id', 'gone_at']);
            $t->dropIndex(['account_id', 'import_id']);
            $t->dropColumn('gone_at');
            $t->foreign('account_id')->references('id')->on('accounts')->cascadeOnDelete();
        });
    }
};
