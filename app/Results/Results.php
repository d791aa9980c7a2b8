<?php

namespace App\Results;

use App\Models\Client;
use Vestigon\Core\Watch\Line;

/** Lines of results, the largest first, with the same of other days beside them. */
final readonly class Results
{
    /** What lines can have most of, as it is asked for and as it is added up. */
    private const MEASURES = [
        'impressions' => 'impressions',
        'clicks' => 'clicks',
        'sessions' => 'sessions',
        'newVisitors' => 'new_visitors',
        'onePage' => 'one_page',
        'views' => 'views',
        'conversions' => 'part',
        'revenue' => 'value',
        'net' => 'net',
        'cost' => 'cost',
    ];

    public function __construct(private Sums $sums, private Names $names) {}

    /**
     * @param Question|null $beside the same of other days
     * @param string $order what the largest has most of
     * @return array<string, mixed>
     */
    public function of(
        Client $client,
        Question $question,
        ?Question $beside,
        string $order,
        bool $up,
        int $most,
    ): array {
        $largest = $beside === null && ! $up && isset(self::MEASURES[$order])
            ? $this->sums->largest($client, $question, self::MEASURES[$order], $most)
            : null;
        $lines = $largest['lines'] ?? $this->sums->of($client, $question);
        $total = $largest['total'] ?? self::sum($lines);
        $before = $beside === null ? [] : $this->sums->of($client, $beside);
        $keys = array_keys($lines + ($question->by !== [] && $question->by[0]->isTime() ? [] : $before));
        $weights = [];
        foreach ($keys as $key) {
            $weights[$key] = self::weight($lines[$key] ?? new Line([]), $order, $client->currency);
        }
        $isTime = $order === 'name' || ($question->by !== [] && $question->by[0]->isTime());
        ksort($weights, $isTime ? SORT_NATURAL | SORT_FLAG_CASE : SORT_STRING);
        if ($isTime) {
            $weights = $up ? $weights : array_reverse($weights, true);
        } else {
            $up ? asort($weights) : arsort($weights); // those of the same weight stay in the order of their names
        }
        $shown = array_slice(array_keys($weights), 0, $most);
        $rest = ($largest['many'] ?? count($weights)) - count($shown);
        $sumBefore = self::sum($before);

        return [
            'lines' => array_map(
                fn (string|int $key): array => [
                    'by' => array_values(($lines[$key] ?? $before[$key])->by),
                    ...self::told($lines[$key] ?? null, $before[$key] ?? null, $beside !== null),
                ],
                $shown,
            ),
            'names' => $this->names(
                $client,
                $question,
                array_map(static fn (string|int $key): Line => $lines[$key] ?? $before[$key], $shown),
            ),
            'asked' => array_map(
                fn (array $w): object => (object) ($w['by']->isPart
                    ? []
                    : $this->names->of($client, $w['by']->dimension, $w['is'])),
                $question->where,
            ),
            'others' => $rest === 0
                    ? null
                    : [
                        'lines' => $rest,
                        ...self::told(
                            $total->without(self::sum(array_intersect_key($lines, array_flip($shown)))),
                            $sumBefore->without(self::sum(array_intersect_key($before, array_flip($shown)))),
                            $beside !== null,
                        ),
                    ],
            'total' => self::told($total, $sumBefore, $beside !== null),
            'figures' => $question->knowsFigures(),
            'currency' => $client->currency,
        ];
    }

    /**
     * @param list<Line> $lines
     * @return list<object> value → name, of each dimension
     */
    private function names(Client $client, Question $question, array $lines): array
    {
        return array_map(
            fn (By $by): object => (object) ($by->isPart
                ? []
                : $this->names->of(
                    $client,
                    $by->dimension,
                    array_values(
                        array_unique(array_map(static fn (Line $l): string => (string) $l->by[$by->asked], $lines)),
                    ),
                )),
            $question->by,
        );
    }

    /** @return array<string, mixed> */
    private static function told(?Line $line, ?Line $before, bool $isCompared): array
    {
        $array = static fn (?Line $l): array => array_diff_key(($l ?? new Line([]))->toArray(), ['by' => true]);

        return ['now' => $array($line), ...$isCompared ? ['before' => $array($before)] : []];
    }

    /** @param array<string, Line> $lines */
    private static function sum(array $lines): Line
    {
        $sum = new Line([]);
        foreach ($lines as $line) {
            $sum->addAll($line);
        }

        return $sum;
    }

    private static function weight(Line $line, string $order, string $currency): float|int
    {
        $value = match ($order) {
            'impressions', 'clicks', 'sessions', 'newVisitors', 'onePage', 'views', 'conversions' => $line->{$order},
            'revenue', 'net', 'cost' => $line->{$order}[$currency] ?? 0,
            default => $line->toArray()['rates'][$order] ?? 0,
        };

        return is_object($value) ? $value->{$currency} ?? 0 : (float) $value;
    }
}
