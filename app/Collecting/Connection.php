<?php

namespace App\Collecting;

use App\Support\Statement;

/** The database, over a connection that outlives requests. */
final readonly class Connection
{
    private \PDO $pdo;

    /**
     * @param array<string, string> $settings as the environment has them
     *
     * @throws \PDOException it is away
     */
    public function __construct(array $settings)
    {
        $where = ($settings['DB_SOCKET'] ?? '') === ''
            ? 'host='.($settings['DB_HOST'] ?? '127.0.0.1').';port='.($settings['DB_PORT'] ?? '3306')
            : "unix_socket={$settings['DB_SOCKET']}";
        $name = $settings['DB_DATABASE'] ?? 'vestigon';
        $this->pdo = new \PDO(
            "mysql:{$where};dbname={$name};charset=utf8mb4",
            $settings['DB_USERNAME'] ?? 'vestigon',
            $settings['DB_PASSWORD'] ?? '',
            [
                \PDO::ATTR_PERSISTENT => true,
                \PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION,
                \PDO::ATTR_TIMEOUT => 2,
                \PDO::MYSQL_ATTR_INIT_COMMAND => "set time_zone = '+00:00'",
            ],
        );
    }

    /**
     * All of them or none.
     *
     * @param list<array<string, mixed>> $rows as Row makes them
     * @return int how many were not known
     *
     * @throws \PDOException
     */
    public function keep(array $rows): int
    {
        $this->pdo->beginTransaction();
        try {
            $kept = (new Arrived($this->run(...)))->keep($rows);
            $this->pdo->commit();
        } catch (\Throwable $e) {
            $this->pdo->rollBack();
            throw $e;
        }

        return count($kept);
    }

    /** @return list<object> */
    private function run(Statement $statement): array
    {
        $running = $this->pdo->prepare($statement->sql);
        $running->execute($statement->values);

        return $statement->tells ? $running->fetchAll(\PDO::FETCH_OBJ) : [];
    }
}
