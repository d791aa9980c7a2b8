<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What an account switches is a text of the account itself, with a past like any other. */
return new class extends Migration {
    public function up(): void
    {
        foreach (
            DB::table('accounts')
                ->join('nodes', 'nodes.account_id', 'accounts.id')
                ->where('depth', 0)
                ->get(['nodes.id', 'settings', 'known_since']) as $account
        ) {
            foreach (json_decode($account->settings, true) as $name => $value) {
                $text = is_bool($value) ? ($value ? 'on' : 'off') : (string) $value;
                DB::table('texts')->insert([
                    'node_id' => $account->id,
                    'kind' => 'setting',
                    'name' => $name,
                    'text' => $text,
                    'since' => $account->known_since ?? now()->format('Y-m-d H:i:s.v'),
                ]);
            }
        }
        Schema::table('accounts', fn (Blueprint $t) => $t->dropColumn('settings'));
    }

    public function down(): void
    {
        Schema::table('accounts', fn (Blueprint $t) => $t->json('settings')->default('{}'));
        foreach (
            DB::table('texts')
                ->join('nodes', 'nodes.id', 'node_id')
                ->where('kind', 'setting')
                ->whereNull('until')
                ->get(['account_id', 'texts.name', 'text'])
                ->groupBy('account_id') as $account => $texts
        ) {
            $settings = $texts
                ->mapWithKeys(
                    static fn (object $t): array => [
                        $t->name => $t->name === 'clickId' ? $t->text === 'on' : $t->text,
                    ],
                )
                ->all();
            DB::table('accounts')
                ->where('id', $account)
                ->update(['settings' => json_encode($settings)]);
        }
        DB::table('texts')->where('kind', 'setting')->delete();
    }
};
