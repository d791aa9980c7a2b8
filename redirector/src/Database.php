<?php

declare(strict_types=1);

namespace Vestigon\Redirector;

/** Asks the database for what is not known. */
final class Database
{
    private ?\PDO $connection = null;

    public function __construct(
        private readonly string $socket,
        private readonly string $name,
        private readonly string $user,
        private readonly string $password,
    ) {}

    /** @throws \PDOException it is away */
    public function target(string $host, string $code, int $now): ?Target
    {
        $query = $this->connection()->prepare(
            'select id, url, forwards, unix_timestamp(ends_at) ends, gone_at from links where host = ? and code = ?',
        );
        $query->execute([$host, $code]);
        $row = $query->fetch(\PDO::FETCH_OBJ);

        return $row === false
            ? null
            : new Target(
                (int) $row->id,
                $row->url,
                (bool) $row->forwards,
                $row->ends === null ? null : (int) $row->ends,
                $row->gone_at !== null,
                $now,
            );
    }

    /**
     * @return list<string>
     *
     * @throws \PDOException it is away
     */
    public function hosts(): array
    {
        return $this->connection()->query('select host from short_hosts')->fetchAll(\PDO::FETCH_COLUMN);
    }

    private function connection(): \PDO
    {
        return $this->connection ??= new \PDO(
            "mysql:unix_socket={$this->socket};dbname={$this->name};charset=utf8mb4",
            $this->user,
            $this->password,
            [
                \PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION,
                \PDO::ATTR_TIMEOUT => 2,
                \PDO::MYSQL_ATTR_INIT_COMMAND => "set time_zone = '+00:00'",
            ],
        );
    }
}
