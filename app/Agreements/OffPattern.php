<?php

namespace App\Agreements;

use App\Accounts\NamedNodes;
use App\Accounts\Trees;
use App\Models\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Naming\Pattern;
use Vestigon\Core\Naming\Patterns;
use Vestigon\Core\Naming\Trouble;

/** Holds the names of an account's elements against patterns, and says what they are to be called. */
final readonly class OffPattern
{
    private const SHOWN = 200;

    /** Elements that are looked at; of a larger account it is said that there are more. */
    private const MOST = 100_000;

    private Dialect $dialect;

    public function __construct(private Account $account, private Patterns $patterns)
    {
        $this->dialect = Trees::dialect($account);
    }

    /** @return array{looked: int, fits: int, off: int, free: int, items: list<array<string, mixed>>} */
    public function show(): array
    {
        $told = ['looked' => 0, 'fits' => 0, 'off' => 0, 'free' => 0, 'items' => []];
        foreach ($this->each() as [$row, $node, $pattern, $trouble]) {
            if ($told['looked'] === self::MOST) {
                break;
            }
            $told['looked']++;
            $told[$pattern === null ? 'free' : ($trouble === null ? 'fits' : 'off')]++;
            if ($pattern !== null && $trouble !== null && count($told['items']) < self::SHOWN) {
                $told['items'][] = [
                    'node' => $row->id,
                    'level' => $this->dialect->level($node->level)->label ?? $node->level,
                    'name' => $node->name,
                    'at' => $trouble->at === null ? null : mb_strlen(substr($node->name, 0, $trouble->at)),
                    'length' => mb_strlen(substr($node->name, (int) $trouble->at, $trouble->length)),
                    'why' => $trouble->why,
                    'proposed' => $pattern->proposed($node->name),
                ];
            }
        }

        return $told;
    }

    /** @return \Generator<list<string>> a row for each name that is off, headings first, to rename by */
    public function rows(): \Generator
    {
        yield ['level', 'number', 'name', 'new name', 'what is wrong'];
        foreach ($this->each() as [, $node, $pattern, $trouble]) {
            if ($pattern !== null && $trouble !== null) {
                yield [
                    $this->dialect->level($node->level)->label ?? $node->level,
                    $node->id,
                    $node->name,
                    $pattern->proposed($node->name) ?? '',
                    $trouble->why,
                ];
            }
        }
    }

    /**
     * The names that elements are to get: the one that is meant, unless a person says another, or that it stays.
     *
     * @param array<int, string|null> $own by node id; null: it stays
     * @return list<array{node: int, kind: string, name: string, text: string|null}> as texts of a change
     */
    public function renames(array $own, int $most): array
    {
        $texts = [];
        foreach ($this->each() as [$row, $node, $pattern, $trouble]) {
            $name = array_key_exists($row->id, $own)
                ? $own[$row->id]
                : ($trouble === null ? null : $pattern?->proposed($node->name));
            if ($name !== null && $name !== $node->name && count($texts) < $most) {
                $texts[] = ['node' => $row->id, 'kind' => 'name', 'name' => '', 'text' => $name];
            }
        }

        return $texts;
    }

    /** @return \Generator<array{object, Node, Pattern|null, Trouble|null}> every element, the widest levels first */
    private function each(): \Generator
    {
        $types = new NamedNodes($this->account, $this->dialect, $this->patterns);
        foreach ([false, true] as $ads) {
            foreach (Trees::each($this->account, $ads) as $row => $node) {
                $pattern = $this->patterns->for($this->dialect, $node->level, $types->type($row));
                yield [$row, $node, $pattern, $pattern?->read($node->name)->trouble[0] ?? null];
            }
        }
    }
}
