<?php

namespace App\Changes;

use App\Models\Change;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Compile\Write;

/** The texts that a person chose for a change by hand, with what stands there now. */
final class ChosenTexts
{
    /** @return list<Write> those on what is in an account, or in a piece of it */
    public static function of(Change $change, Account $account): array
    {
        $writes = [];
        foreach (array_chunk(array_keys($account->nodes), 2000) as $some) {
            $chosen = DraftedWrites::before($change)
                ->whereIntegerInRaw('node_id', array_map(intval(...), $some))
                ->orderBy('position')
                ->get();
            foreach ($chosen as $write) {
                // drafted before, with a trial, a place has several: the last is what was chosen
                $key = (string) $write->node_id;
                $writes["{$key} {$write->kind} {$write->name}"] = [
                    $write->position,
                    Place::write($account, $key, $write->kind, $write->name, $write->after),
                ];
            }
        }
        uasort($writes, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $writes = array_map(static fn (array $w): Write => $w[1], array_values($writes));

        return array_values(array_filter($writes, static fn (Write $w): bool => $w->before !== $w->after));
    }
}
