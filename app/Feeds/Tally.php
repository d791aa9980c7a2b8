<?php

namespace App\Feeds;

use Vestigon\Core\Channel\Channels;
use Vestigon\Core\Feed\Feed;
use Vestigon\Core\Feed\Items;
use Vestigon\Core\Feed\Problem;
use Vestigon\Core\Findings\Personal;
use Vestigon\Core\Url\Query;

/**
 * What rules make of the items of a list: how many each takes, and samples that show everything at least once: each
 * rule, each combination of rules, the longest link, each problem.
 */
final class Tally
{
    private const SAMPLES = 60;

    /** Samples of one rule, the first that it takes. */
    private const OF_A_RULE = 3;

    /** What items with a problem are or have, as people say it. */
    private const SAYS = [
        'no-id' => 'have no number that tells them apart',
        'id-twice' => 'have a number that another has too',
        'no-link' => 'have no link there',
        'not-http' => 'have there what is no address of a web page',
        'empty-column' => 'leave a step out, since a column of it is empty',
        'too-long' => 'have a link of more than 2,000 characters',
        'personal-data' => 'have what looks like a person’s address or number in the link',
        'key-twice' => 'have a key twice in the link',
    ];

    private readonly Items $items;

    private int $count = 0;

    private int $changed = 0;

    /** @var list<int> by rule */
    private array $taken;

    /** @var array<string, int> rules together → items */
    private array $combinations = [];

    /** @var array<string, array<string, int>> kind of link → channel → links */
    private array $channelsOf = [];

    /** @var array<string, array{code: string, column: string|null, items: int, ids: list<string>}> */
    private array $problems = [];

    /** @var array<int, array<string, mixed>> item → what is shown of it */
    private array $samples = [];

    private int $longest = 0;

    /** @var array<string, mixed>|null */
    private ?array $longestSample = null;

    public function __construct(private readonly Feed $feed, private readonly Channels $channels)
    {
        $this->items = new Items($feed);
        $this->taken = array_fill(0, count($feed->rules), 0);
    }

    /**
     * @param array<string, string> $cells
     * @return array<string, string> column → link, of those that are otherwise now
     */
    public function item(array $cells): array
    {
        $outcome = $this->items->next($cells);
        $n = $this->count++;
        $otherwise = [];
        $isShown = false;
        foreach ($outcome->links as $column => $link) {
            if ($link !== ($cells[$column] ?? '')) {
                $otherwise[$column] = $link;
            }
            $this->channel($column, $link);
        }
        foreach ($outcome->rules as $rule) {
            $isShown = $this->taken[$rule]++ < self::OF_A_RULE || $isShown;
        }
        $together = implode(',', $outcome->rules);
        $this->combinations[$together] = ($this->combinations[$together] ?? 0) + 1;
        $isShown = $this->combinations[$together] === 1 || $isShown;
        $problems = [...$outcome->problems, ...self::more($outcome->links)];
        foreach ($problems as $problem) {
            $isShown = $this->problem($problem, $outcome->id) || $isShown;
        }
        $this->changed += $otherwise === [] ? 0 : 1;
        $length = max([0, ...array_map(strlen(...), array_values($outcome->links))]);
        if ($isShown && count($this->samples) < self::SAMPLES) {
            $this->samples[$n] = $this->sample($outcome->id, $cells, $outcome->links, $outcome->rules, $problems);
        } elseif ($length > $this->longest) {
            $this->longestSample = $this->sample($outcome->id, $cells, $outcome->links, $outcome->rules, $problems);
        }
        $this->longest = max($this->longest, $length);

        return $otherwise;
    }

    public function count(): int
    {
        return $this->count;
    }

    public function changed(): int
    {
        return $this->changed;
    }

    /** @return list<array{code: string, says: string, column: string|null, items: int, ids: list<string>}> */
    public function problems(): array
    {
        return array_map(
            static fn (array $p): array => ['code' => $p['code'], 'says' => self::SAYS[$p['code']]] + $p,
            array_values($this->problems),
        );
    }

    /** @return array<string, mixed> */
    public function told(): array
    {
        arsort($this->combinations);

        return [
            'items' => $this->count,
            'changed' => $this->changed,
            'longest' => $this->longest,
            'rules' => $this->taken,
            'combinations' => array_map(
                static fn (string|int $rules, int $items): array => [
                    'rules' => $rules === '' ? [] : array_map(intval(...), explode(',', (string) $rules)),
                    'items' => $items,
                ],
                array_slice(array_keys($this->combinations), 0, self::SAMPLES),
                array_slice($this->combinations, 0, self::SAMPLES),
            ),
            'channels' => array_map(
                static fn (array $of): array => array_map(
                    static fn (string|int $channel, int $links): array => [
                        'channel' => (string) $channel,
                        'links' => $links,
                    ],
                    array_keys($of),
                    $of,
                ),
                $this->channelsOf + ['paid' => [], 'unpaid' => []],
            ),
            'problems' => $this->problems(),
            'samples' => array_values([
                ...$this->samples,
                ...$this->longestSample === null ? [] : [$this->longestSample],
            ]),
        ];
    }

    private function channel(string $column, string $link): void
    {
        $kind = $this->feed->links[$column]->value;
        $channel = $this->channels->of(Query::first($link))->channel;
        $this->channelsOf[$kind][$channel] = ($this->channelsOf[$kind][$channel] ?? 0) + 1;
    }

    /**
     * What only a whole list's owner wants to know beside what the core tells.
     *
     * @param array<string, string> $links
     * @return list<array{string, string}> code and column
     */
    private static function more(array $links): array
    {
        $more = [];
        foreach ($links as $column => $link) {
            $keys = [];
            foreach (Query::read($link) as [$key, $value]) {
                $keys[$key] = ($keys[$key] ?? 0) + 1;
                if (strpbrk($value, '@+0') !== false && Personal::in($value) !== []) {
                    $more["personal-data {$column}"] = ['personal-data', $column];
                }
            }
            if ($keys !== [] && max($keys) > 1) {
                $more["key-twice {$column}"] = ['key-twice', $column];
            }
        }

        return array_values($more);
    }

    /**
     * @param Problem|array{string, string} $problem
     * @return bool is it the first of its kind?
     */
    private function problem(Problem|array $problem, string $id): bool
    {
        [$code, $column] = $problem instanceof Problem ? [$problem->code->value, $problem->column] : $problem;
        $kind = "{$code} {$column}";
        $this->problems[$kind] ??= ['code' => $code, 'column' => $column, 'items' => 0, 'ids' => []];
        if (count($this->problems[$kind]['ids']) < 5) {
            $this->problems[$kind]['ids'][] = mb_substr($id, 0, 100);
        }

        return $this->problems[$kind]['items']++ === 0;
    }

    /**
     * @param array<string, string> $cells
     * @param array<string, string> $links
     * @param list<int> $rules
     * @param list<Problem|array{string, string}> $problems
     * @return array<string, mixed>
     */
    private function sample(string $id, array $cells, array $links, array $rules, array $problems): array
    {
        $shown = [];
        foreach ($this->feed->links as $column => $kind) {
            $shown[] = [
                'column' => $column,
                'kind' => $kind->value,
                'before' => $cells[$column] ?? '',
                'after' => isset($links[$column]) ? Ribbons::of($cells[$column] ?? '', $links[$column]) : null,
            ];
        }

        return [
            'id' => $id,
            'rules' => $rules,
            'links' => $shown,
            'problems' => array_values(array_unique(array_map(self::code(...), $problems))),
        ];
    }

    /** @param Problem|array{string, string} $problem */
    private static function code(Problem|array $problem): string
    {
        return $problem instanceof Problem ? $problem->code->value : $problem[0];
    }
}
