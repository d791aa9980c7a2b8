<?php

namespace App\Arrivals;

use App\Dialects\Dialects;
use App\Models\LogFile;
use App\Sheets\Files\FirstRows;
use App\Sheets\Files\Opening;
use App\Sheets\Files\Table;
use App\Support\Money;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Sheet\HeadingRow;
use Vestigon\Core\Watch\ConversionSheet;

/**
 * Reads a sheet of orders that somebody has put in for a site: they are handed in as a server would hand them in, so
 * the same order counts once, however it comes.
 */
final readonly class Orders
{
    /** So many rows tell which decimal mark a sheet has. */
    private const LOOKED_AT = 200;

    public function __construct(private Receiving $receiving, private Dialects $dialects) {}

    /** @throws UnusableInput the file holds no table with orders and times */
    public function read(LogFile $file): void
    {
        $lines = $taken = 0;
        $leftOut = [];
        foreach ($this->sheets($file) as [$table, $at, $sheet]) {
            $some = ['events' => [], 'refunds' => []];
            $number = 0;
            foreach ($table->rows() as $row) {
                $read = $number++ > $at ? $sheet->read($row, Money::digits(...)) : [];
                if ($read === []) {
                    continue;
                }
                $lines++;
                if (is_string($read)) {
                    $leftOut[$read] = ($leftOut[$read] ?? 0) + 1;

                    continue;
                }
                foreach ($read as $kind => $record) {
                    $some["{$kind}s"][] = $record;
                }
                if (count($some['events']) + count($some['refunds']) === config('limits.records')) {
                    $taken += $this->hand($file, $some, $leftOut);
                    $some = ['events' => [], 'refunds' => []];
                }
            }
            $taken += $this->hand($file, $some, $leftOut);
        }
        $file->update(['state' => 'read', 'lines' => $lines, 'taken' => $taken, 'left_out' => $leftOut]);
    }

    /**
     * @param array{events: list<mixed>, refunds: list<mixed>} $some
     * @param array<string, int> $leftOut
     */
    private function hand(LogFile $file, array $some, array &$leftOut): int
    {
        if ($some['events'] === [] && $some['refunds'] === []) {
            return 0;
        }
        $told = $this->receiving->handedIn($file->collector, $some);
        foreach ($told['refused'] as $why => $n) {
            $leftOut[$why] = ($leftOut[$why] ?? 0) + $n;
        }

        return $told['taken'];
    }

    /**
     * Found before anything is handed in: a file is taken or it is not. A workbook's other tables are passed over.
     *
     * @return non-empty-list<array{Table, int, ConversionSheet}> tables of orders, the place of each one's heading row,
     *     and how the rows behind it are read
     *
     * @throws UnusableInput it has none
     */
    private function sheets(LogFile $file): array
    {
        $sheets = [];
        foreach (Opening::tables($file->path(), $file->name) as $table) {
            $found = $this->sheet($file, $table);
            if ($found !== null) {
                $sheets[] = [$table, ...$found];
            }
        }

        return $sheets !== [] ? $sheets : throw new UnusableInput(
            "{$file->name} has no row that heads a column of order numbers and one of times. Call them “Order” and "
                .'“Time”; beside them may stand “Value”, “Currency”, “Click ID” and “Conversion”',
        );
    }

    /** @return array{int, ConversionSheet}|null null: it holds no orders */
    private function sheet(LogFile $file, Table $table): ?array
    {
        $client = $file->collector->client;
        $clicks = array_filter(
            array_map(
                static fn (Dialect $d): ?string => $d->clickId?->parameter,
                $this->dialects->usedBy($client),
            ),
        );
        $first = FirstRows::of($table, HeadingRow::WITHIN + self::LOOKED_AT);
        foreach (array_slice($first, 0, HeadingRow::WITHIN) as $at => $row) {
            $by = static fn (string $decimal): ?ConversionSheet => ConversionSheet::of(
                $row,
                array_values($clicks),
                new \DateTimeZone($client->time_zone),
                $client->currency,
                $decimal,
            );
            $plain = $by('.');
            if ($plain !== null) {
                $wrong = static fn (?ConversionSheet $sheet): int => count(
                    array_filter(
                        array_slice($first, $at + 1),
                        static fn (array $r): bool => $sheet?->understands($sheet->value($r)) === false,
                    ),
                );
                $comma = $by(',');

                return [$at, $comma !== null && $wrong($comma) < $wrong($plain) ? $comma : $plain];
            }
        }

        return null;
    }
}
