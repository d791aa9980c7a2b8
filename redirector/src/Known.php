<?php

declare(strict_types=1);

namespace Vestigon\Redirector;

/** Short addresses that were asked for before: a file each, so that they lead on while the database is away. */
final readonly class Known
{
    /** So many seconds what is known is taken for what is so. */
    private const FRESH = 60;

    public function __construct(private string $folder) {}

    /** @return Target|null null: it was never asked for */
    public function target(string $host, string $code): ?Target
    {
        $text = @file_get_contents($this->file($host, $code));
        $read = $text === false ? null : json_decode($text, true);
        try {
            return is_array($read) ? new Target(...$read) : null;
        } catch (\Error) {
            return null; // written by another version
        }
    }

    public function isFresh(Target $target, int $now): bool
    {
        return $now - $target->seen < self::FRESH;
    }

    public function keep(string $host, string $code, Target $target): void
    {
        $this->write($this->file($host, $code), get_object_vars($target));
    }

    /** What is known of it is not so any more. */
    public function forget(string $host, string $code): void
    {
        @unlink($this->file($host, $code));
    }

    /** @return list<string>|null the hosts that clients have for themselves; null: nobody has asked of late */
    public function hosts(int $now, bool $evenIfOld = false): ?array
    {
        $file = "{$this->folder}/hosts.json";
        $text = @file_get_contents($file);
        $read = $text === false ? null : json_decode($text, true);

        return is_array($read) && ($evenIfOld || $now - $read['seen'] < self::FRESH) ? $read['hosts'] : null;
    }

    /** @param list<string> $hosts */
    public function keepHosts(array $hosts, int $now): void
    {
        $this->write("{$this->folder}/hosts.json", ['hosts' => $hosts, 'seen' => $now]);
    }

    public function forgetHosts(): void
    {
        @unlink("{$this->folder}/hosts.json");
    }

    /** @param array<string, mixed> $what */
    private function write(string $file, array $what): void
    {
        @mkdir(dirname($file), 0o770, true);
        $part = $file.'.'.getmypid();
        if (@file_put_contents($part, json_encode($what, JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE)) !== false) {
            rename($part, $file);
        }
    }

    private function file(string $host, string $code): string
    {
        $name = hash('xxh128', "{$host}\0{$code}");

        return "{$this->folder}/".substr($name, 0, 2)."/{$name}.json";
    }
}
