<?php

declare(strict_types=1);

namespace Standins;

use Standins\Demo\World;

/** The stand-ins' own database: one SQLite file, made with the demo in it when it is missing. */
final readonly class Store
{
    /** Another number, another set of tables: a store of an older one is made anew. */
    private const VERSION = 5;

    private const TABLES = '
        create table nodes (platform text not null, id text not null, account text not null, parent text,
            level text not null, position integer not null, name text not null,
            type text, slots text not null, custom text not null, keywords text not null,
            published text, facts text not null, version integer not null, standing text not null default \'live\',
                reviewed integer not null default 0, primary key (platform, id));
        create index nodes_listing on nodes (platform, account, level, position);
        create table accounts (platform text not null, id text not null, customer text not null,
            settings text not null, primary key (platform, id));
        create table done (key text primary key, answer text not null);
        create table clicks (id text primary key, platform text not null, account text not null, ad text not null,
            keyword text not null, url text not null, at text not null, placement text not null default \'\',
            device text not null default \'\', cost integer not null default 0, late integer not null default 0,
            fate text not null default \'arrived\');
        create index clicks_by_day on clicks (platform, account, at);
        create table shown (platform text not null, account text not null, ad text not null, day text not null,
            impressions integer not null, primary key (platform, account, day, ad));
        create table claims (platform text not null, account text not null, ad text not null, day text not null,
            at text not null, value integer not null);
        create index claims_by_day on claims (platform, account, day);
        create table arrivals (id integer primary key autoincrement, at text not null, url text not null,
            referrer text not null, site text not null default \'\', visitor text, device text, detail text);
        create table coming (told text not null, at text not null, url text not null, referrer text not null,
            site text not null, visitor text, device text, detail text);
        create index coming_told on coming (told);
        create table refunds (id integer primary key autoincrement, site text not null, order_id text not null,
            at text not null, value integer not null);
        create table withheld (site text not null, day text not null, n integer not null, primary key (site, day));
        create table passed (site text not null, day text not null, n integer not null, primary key (site, day));
        create table people (seed integer not null, first text not null, until text not null, goes_on integer not null);
        create table faults (id integer primary key autoincrement, site text not null, kind text not null,
            argument text not null, remaining integer not null);
        create table beacons (key text primary key, minute integer not null, n integer not null);
        create table mails (id integer primary key autoincrement, at text not null, source text not null);
        create table tokens (token text primary key, platform text not null, customer text not null,
            until integer not null);';

    private function __construct(public \PDO $pdo) {}

    public static function open(string $file, int $port): self
    {
        if (is_file($file)) {
            $store = new self(self::connect($file));
            if ($store->rows('pragma user_version')[0]['user_version'] === self::VERSION) {
                return $store;
            }
            array_map(unlink(...), glob("{$file}*") ?: []);
        }
        self::create($file, $port);

        return new self(self::connect($file));
    }

    public function reset(int $port): void
    {
        foreach (
            $this->rows("select name from sqlite_master where type = 'table' and name not like 'sqlite_%'") as $t
        ) {
            $this->pdo->exec("delete from {$t['name']}");
        }
        World::fill($this, $port);
    }

    /**
     * @param list<mixed> $values
     * @return list<array<string, mixed>>
     */
    public function rows(string $sql, array $values = []): array
    {
        $statement = $this->pdo->prepare($sql);
        $statement->execute($values);

        return $statement->fetchAll(\PDO::FETCH_ASSOC);
    }

    /** @param list<mixed> $values */
    public function run(string $sql, array $values = []): int
    {
        $statement = $this->pdo->prepare($sql);
        $statement->execute($values);

        return $statement->rowCount();
    }

    private static function create(string $file, int $port): void
    {
        $lock = fopen("{$file}.lock", 'c') ?: throw new \RuntimeException("{$file}.lock can't be written");
        flock($lock, LOCK_EX);
        if (! is_file($file)) {
            $new = "{$file}.new";
            @unlink($new);
            $store = new self(self::connect($new));
            $store->pdo->exec(self::TABLES.'pragma user_version = '.self::VERSION);
            $store->pdo->exec('begin');
            World::fill($store, $port);
            $store->pdo->exec('commit');
            $store->pdo->exec('pragma wal_checkpoint(truncate)');
            rename($new, $file);
        }
        fclose($lock);
    }

    private static function connect(string $file): \PDO
    {
        $pdo = new \PDO("sqlite:{$file}", null, null, [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION]);
        $pdo->exec('pragma busy_timeout=10000; pragma synchronous=normal');

        return $pdo;
    }
}
