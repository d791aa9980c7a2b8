<?php

namespace App\Bulk;

use App\Accounts\Branches;
use App\Accounts\Misfit;
use App\Accounts\Selection;
use App\Accounts\Show;
use App\Models\Account;
use App\Models\ChangeWrite;
use App\Models\Node;
use Vestigon\Core\Document\UnusableInput;

/** An edit of many texts: what it would do, in a stream; nothing is kept in memory but what is shown. */
final class Editing
{
    private const SHOWN = 200;

    private const MOST_PROBLEMS = 20;

    public const MOST_WRITES = 500_000;

    public function __construct(private readonly Account $account) {}

    /**
     * @param array<string, mixed> $what see the contract's Edit
     * @param int|null $change the drafted change that takes the texts; null: only look
     * @return array{total: int, looked: int, items: list<array<string, mixed>>, problems: list<string>}
     *
     * @throws UnusableInput
     */
    public function run(Selection $over, array $what, ?int $change = null): array
    {
        $problems = [];
        $report = static function (string $problem) use (&$problems): void {
            if (count($problems) < self::MOST_PROBLEMS) {
                $problems[] = $problem;
            }
        };
        $source = match ($what['kind']) {
            'paste' => (new Paste($this->account, $report))->texts((string) ($what['cells'] ?? '')),
            'copy' => (new Copying($this->account, $report))->texts(
                $over,
                (int) ($what['from'] ?? 0),
                $what['slots'] ?? [],
            ),
            default => (new Everywhere($this->account))->texts($over, $what),
        };
        $total = $looked = 0;
        $shown = $rows = [];
        foreach ($source as $text) {
            $looked++;
            if ($text->before === $text->after) {
                continue;
            }
            $why = $text->after === null ? null : Misfit::whyOfText($text->after);
            if ($why !== null) {
                $name = Node::query()->whereKey($text->node)->value('name');
                throw new UnusableInput("the {$text->kind} of {$name} would be too long: it {$why}");
            }
            if ($total >= self::MOST_WRITES) {
                throw new UnusableInput(
                    'more than '
                        .number_format(self::MOST_WRITES)
                        .' texts would change; choose fewer elements',
                );
            }
            if ($total < self::SHOWN) {
                $shown[] = $text;
            }
            if ($change !== null) {
                $rows[] = [
                    'change_id' => $change,
                    'position' => $total,
                    'node_id' => $text->node,
                    'kind' => $text->kind,
                    'name' => $text->name,
                    'after' => $text->after,
                ];
                if (count($rows) === 500) {
                    ChangeWrite::query()->insert($rows);
                    $rows = [];
                }
            }
            $total++;
        }
        ChangeWrite::query()->insert($rows);

        return ['total' => $total, 'looked' => $looked, 'items' => $this->shown($shown), 'problems' => $problems];
    }

    /**
     * @param list<Text> $texts
     * @return list<array<string, mixed>>
     */
    private function shown(array $texts): array
    {
        $branch = Branches::of(
            $this->account,
            ...array_unique(array_map(static fn (Text $t): int => $t->node, $texts)),
        );

        return array_map(static function (Text $t) use ($branch): array {
            $path = $branch->path($t->node);

            return [
                'node' => $t->node,
                'name' => $path->last()->name,
                'where' => Show::where($path),
                'kind' => $t->kind,
                'custom' => $t->name,
                'before' => $t->before,
                'after' => $t->after,
            ];
        }, $texts);
    }
}
