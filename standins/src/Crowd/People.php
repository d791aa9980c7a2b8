<?php

declare(strict_types=1);

namespace Standins\Crowd;

use Standins\Store;

/**
 * The people of this small world: they search, scroll, click, come back, buy, and change their minds, the same way each
 * time for the same seed. Without them nothing happens that nobody does by hand.
 */
final readonly class People
{
    private function __construct(
        private Store $store,
        private int $port,
        private int $seed,
        private string $first,
    ) {}

    /**
     * They have been about for so many days.
     *
     * @param bool $goesOn and go on from now on; false: nothing more happens
     */
    public static function begin(Store $store, int $port, int $days, int $seed, bool $goesOn): void
    {
        $first = gmdate('Y-m-d', time() - $days * 86_400);
        foreach (['people', 'coming', 'shown', 'claims', 'refunds', 'withheld', 'passed'] as $table) {
            $store->run("delete from {$table}");
        }
        $store->run('delete from clicks where cost > 0'); // what was clicked by hand stays
        $store->run('insert into people values (?, ?, ?, ?)', [
            $seed,
            $first,
            gmdate('Y-m-d', (int) strtotime($first) - 86_400),
            (int) $goesOn,
        ]);
        (new self($store, $port, $seed, $first))->upTo(self::now());
    }

    /** What has happened by now is there to be read. */
    public static function goOn(Store $store, int $port): void
    {
        $people = $store->rows('select * from people where goes_on = 1')[0] ?? null;
        $now = self::now();
        if (
            $people === null
            || ($people['until'] >= substr($now, 0, 10)
                && $store->rows('select 1 from coming where told <= ? limit 1', [$now]) === [])
        ) {
            return;
        }
        $store->pdo->exec('begin immediate');
        (new self($store, $port, (int) $people['seed'], (string) $people['first']))->upTo($now);
        $store->pdo->exec('commit');
    }

    private static function now(): string
    {
        return Notebook::instant((int) (microtime(true) * 1000));
    }

    private function upTo(string $now): void
    {
        $this->days(substr($now, 0, 10));
        $this->store->run(
            'insert into arrivals (at, url, referrer, site, visitor, device, detail)
            select at, url, referrer, site, visitor, device, detail from coming where told <= ? order by told',
            [$now],
        );
        $this->store->run('delete from coming where told <= ?', [$now]);
    }

    private function days(string $today): void
    {
        $until = (string) $this->store->rows('select until from people')[0]['until']; // under the lock
        if ($until >= $today) {
            return;
        }
        $adverts = Adverts::in($this->store, $this->seed);
        while ($until < $today) {
            $until = gmdate('Y-m-d', (int) strtotime("{$until}T00:00:00Z") + 86_400);
            (new Day($this->store, $this, $until))->happens($adverts);
        }
        $this->store->run('update people set until = ?', [$until]);
    }

    /** Days are told apart by how long after the first they are: the same seed gives the same on any date. */
    public function chance(string $of): Chance
    {
        $of = preg_replace_callback(
            '/\d{4}-\d\d-\d\d/',
            fn (array $day): string => 'day '.(strtotime($day[0]) - strtotime($this->first)) / 86_400,
            $of,
        );

        return new Chance("{$this->seed} {$of}");
    }

    /** How far into 90 days an instant is, 1 at most. */
    public function howFar(int $ms): float
    {
        return min(1.0, ($ms / 1000 - strtotime($this->first)) / (90 * 86_400));
    }

    public function root(string $site): string
    {
        return "http://{$site}.localhost:{$this->port}";
    }
}
