<?php

namespace App\Arrivals;

use App\Models\SiteFile;
use App\Models\SiteFileState;
use Vestigon\Core\Document\UnusableInput;

/**
 * Reads a sheet that somebody has put in for a site, by what was said of its columns: orders are handed in as a server
 * would hand them in, so the same order counts once, however it comes; page views as pages report them.
 */
final readonly class EventFile
{
    public function __construct(private Receiving $receiving, private EventTables $tables) {}

    /** @throws UnusableInput it can't be read on */
    public function read(SiteFile $file): void
    {
        $lines = $taken = 0;
        $leftOut = [];
        $same = new SameAgain();
        foreach ($this->tables->mapped($file) as [$table, $mapped]) {
            if (! $mapped->isUsed) {
                continue;
            }
            $sheet = EventTables::sheet($file, $mapped);
            $some = ['events' => [], 'refunds' => []];
            $number = 0;
            foreach ($table->rows() as $row) {
                $read = $number++ > $mapped->headingRow ? $sheet->read($row) : [];
                if ($read === []) {
                    continue;
                }
                $lines++;
                if (is_string($read)) {
                    $leftOut[$read] = ($leftOut[$read] ?? 0) + 1;

                    continue;
                }
                foreach ($read as $kind => $record) {
                    if (($record['kind'] ?? '') === 'view') {
                        $record['id'] .= " {$same->number($record['id'])}"; // two that read alike are two
                    }
                    $some["{$kind}s"][] = $record;
                }
                if (count($some['events']) + count($some['refunds']) === config('limits.records')) {
                    $taken += $this->hand($file, $some, $leftOut);
                    $some = ['events' => [], 'refunds' => []];
                }
            }
            $taken += $this->hand($file, $some, $leftOut);
        }
        $file->update(['state' => SiteFileState::Read, 'lines' => $lines, 'taken' => $taken, 'left_out' => $leftOut]);
    }

    /**
     * @param array{events: list<mixed>, refunds: list<mixed>} $some
     * @param array<string, int> $leftOut
     */
    private function hand(SiteFile $file, array $some, array &$leftOut): int
    {
        if ($some['events'] === [] && $some['refunds'] === []) {
            return 0;
        }
        $told = $this->receiving->handedIn($file->collector, $some, withViews: true);
        foreach ($told['refused'] as $why => $n) {
            $leftOut[$why] = ($leftOut[$why] ?? 0) + $n;
        }

        return $told['taken'];
    }
}
