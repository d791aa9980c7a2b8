<?php

namespace App\Results;

use App\Sheets\Files\Form;
use App\Sheets\Files\Writing;
use App\Support\Money;

/** Results as a sheet: a line a row, its dimensions first, money in the currency's own units. */
final class Export
{
    private const COUNTS = ['impressions', 'clicks', 'views', 'sessions', 'newVisitors', 'onePage', 'conversions'];

    private const MONEY = ['revenue', 'net', 'cost'];

    /**
     * @param array<string, mixed> $results as Results gives them
     * @param string $kind csv or xlsx
     * @return array{path: string, name: string, type: string}
     */
    public static function file(array $results, Question $question, string $kind): array
    {
        $title = "results {$question->from} to {$question->to}";

        return Writing::files(
            [
                'results' => [
                    [
                        'title' => 'results',
                        'form' => new Form($kind),
                        'rows' => static fn (): iterable => self::rows($results, $question),
                    ],
                ],
            ],
            $title,
        );
    }

    /**
     * @param array<string, mixed> $results
     * @return iterable<list<mixed>>
     */
    private static function rows(array $results, Question $question): iterable
    {
        $currencies = self::currencies($results);
        yield [
            ...array_map(
                static fn (By $by): string => $by->asked,
                $question->by,
            ),
            ...self::COUNTS,
            ...array_merge(
                ...array_map(
                    static fn (string $m): array => array_map(
                        static fn (string $c): string => "{$m} {$c}",
                        $currencies,
                    ),
                    self::MONEY,
                ),
            ),
        ];
        foreach ($results['lines'] as $line) {
            $cells = [];
            foreach ($line['by'] as $i => $value) {
                $cells[] = $results['names'][$i]->{$value} ?? $value;
            }
            foreach (self::COUNTS as $measure) {
                $cells[] = $line['now'][$measure];
            }
            foreach (self::MONEY as $measure) {
                foreach ($currencies as $currency) {
                    $minor = $line['now'][$measure]->{$currency} ?? null;
                    $cells[] = $minor === null ? '' : Money::plain((int) $minor, $currency);
                }
            }
            yield $cells;
        }
    }

    /**
     * @param array<string, mixed> $results
     * @return list<string>
     */
    private static function currencies(array $results): array
    {
        $all = [];
        foreach (self::MONEY as $measure) {
            $all += (array) $results['total']['now'][$measure];
        }

        return array_map(strval(...), array_keys($all)) ?: [$results['currency']];
    }
}
