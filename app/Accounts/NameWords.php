<?php

namespace App\Accounts;

use App\Support\Bulk;
use Illuminate\Support\Facades\DB;

/** The words of elements' names, kept so that elements are found by how a word begins. */
final class NameWords
{
    /** What of a word is kept, in characters. */
    public const LENGTH = 32;

    /** @return list<string> in small letters, each once */
    public static function in(string $name): array
    {
        $words = preg_split('/[^\p{L}\p{M}\p{N}]+/u', mb_strtolower(mb_scrub($name)), -1, PREG_SPLIT_NO_EMPTY) ?: [];

        return array_values(
            array_unique(array_map(static fn (string $w): string => mb_substr($w, 0, self::LENGTH), $words)),
        );
    }

    /** @param array<array-key, object{id: int, account_id: int, name: string}> $nodes whose words are not there yet */
    public static function add(array $nodes): void
    {
        $rows = [];
        foreach ($nodes as $node) {
            foreach (self::in($node->name) as $word) {
                $rows[] = ['account_id' => $node->account_id, 'word' => $word, 'node_id' => $node->id];
            }
        }
        // two words that differ in an accent alone are one
        Bulk::insert('name_words', $rows, how: 'ignore');
    }

    /** @param list<int> $nodes whose words are not theirs any more */
    public static function drop(array $nodes): void
    {
        DB::table('name_words')->whereIntegerInRaw('node_id', $nodes)->delete();
    }
}
