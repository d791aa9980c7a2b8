<?php

namespace App\Agreements;

use App\Accounts\NamedNodes;
use App\Accounts\Trees;
use App\Models\Account;
use Vestigon\Core\Naming\Patterns;

/** Holds the names of an account's elements against patterns. */
final readonly class OffPattern
{
    private const SHOWN = 200;

    /** Elements that are looked at; of a larger account it is said that there are more. */
    private const MOST = 100_000;

    public function __construct(private Account $account, private Patterns $patterns) {}

    /** @return array{looked: int, fits: int, off: int, free: int, items: list<array<string, mixed>>} */
    public function show(): array
    {
        $dialect = Trees::dialect($this->account);
        $types = new NamedNodes($this->account, $dialect, $this->patterns);
        $told = ['looked' => 0, 'fits' => 0, 'off' => 0, 'free' => 0, 'items' => []];
        foreach ([false, true] as $ads) {
            foreach (Trees::each($this->account, $ads) as $row => $node) {
                if ($told['looked'] === self::MOST) {
                    return $told;
                }
                $told['looked']++;
                $pattern = $this->patterns->for($dialect, $node->level, $types->type($row));
                $trouble = $pattern?->read($node->name)->trouble[0] ?? null;
                $told[$pattern === null ? 'free' : ($trouble === null ? 'fits' : 'off')]++;
                if ($pattern !== null && $trouble !== null && count($told['items']) < self::SHOWN) {
                    $told['items'][] = [
                        'node' => $row->id,
                        'level' => $dialect->level($node->level)->label ?? $node->level,
                        'name' => $node->name,
                        'at' => $trouble->at === null ? null : mb_strlen(substr($node->name, 0, $trouble->at)),
                        'length' => mb_strlen(substr($node->name, (int) $trouble->at, $trouble->length)),
                        'why' => $trouble->why,
                        'proposed' => $pattern->proposed($node->name),
                    ];
                }
            }
        }

        return $told;
    }
}
