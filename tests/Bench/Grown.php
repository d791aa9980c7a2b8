<?php

namespace Tests\Bench;

use App\Models\Account;
use Illuminate\Support\Facades\DB;

/** Large accounts for benches. */
final class Grown
{
    /** The numbers of a copy are so far from those of the one before. */
    private const APART = 1_000_000;

    /** An account with many copies of another one's campaigns. */
    public static function from(Account $small, string $name, int $copies): Account
    {
        $large = $small->replicate()->fill(['external_id' => $name, 'name' => ucfirst($name)]);
        $large->save();
        $root = $small
            ->nodes()
            ->whereNull('parent_id')
            ->firstOrFail()
            ->replicate(['id_backwards'])
            ->fill(['account_id' => $large->id]);
        foreach (['ads', 'proven', 'broken', 'untracked'] as $many) {
            $root->{$many} *= $copies;
        }
        $root->save();
        $columns =
            'level, depth, position, name, type, facts, keywords, version, import_id, is_ad, state, fault, '
            .'fault_keys, ads, proven, broken, untracked';
        $first = intdiv((int) DB::table('nodes')->max('id'), self::APART) + 1;
        for ($k = 1; $k <= $copies; $k++) {
            $offset = ($first + $k) * self::APART;
            DB::insert(
                "insert into nodes (id, account_id, parent_id, external_id, {$columns}) select id + {$offset}, "
                    ."{$large->id}, if(depth = 1, {$root->id}, parent_id + {$offset}), concat(external_id, '-{$k}'), "
                    ."{$columns} from nodes where account_id = ? and depth > 0",
                [$small->id],
            );
            DB::insert(
                "insert into texts (node_id, kind, name, text, since, until) select node_id + {$offset}, kind, name, "
                    .'text, since, until from texts where node_id in (select id from nodes where account_id = ? and '
                    .'depth > 0)',
                [$small->id],
            );
        }
        DB::statement(
            'insert into name_words (account_id, word, node_id) select n.account_id, w.word, n.id from nodes n join '
                .'name_words w on w.node_id = n.id % ? where n.account_id = ? and n.depth > 0',
            [self::APART, $large->id],
        );
        DB::statement('analyze table nodes, texts, name_words');

        return $large;
    }
}
