<?php

namespace App\Support;

use App\Events\WorkWentOn;
use Illuminate\Console\Application;
use Illuminate\Contracts\Process\ProcessResult;
use Illuminate\Process\Pool;
use Illuminate\Support\Facades\Process;
use Illuminate\Support\Sleep;

/** Commands of ours that share some work, each in a process of its own beside this one. */
final class Beside
{
    private const LONGEST = 1800; // seconds

    /**
     * @template T of object
     *
     * @param list<Command> $commands
     * @param class-string<T> $what each of them hands over
     * @param \Closure(): void|null $meanwhile now and then, while they work; what it throws ends them
     * @return list<T>
     *
     * @throws Overtaken
     */
    public static function run(array $commands, string $what, ?\Closure $meanwhile = null): array
    {
        $pool = Process::pool(static function (Pool $pool) use ($commands): void {
            foreach ($commands as $command) {
                $pool
                    ->path(base_path())
                    ->timeout(self::LONGEST)
                    ->input($command->told)
                    ->command(Application::formatCommandString($command->line));
            }
        })->start();
        try {
            while ($pool->running()->isNotEmpty()) {
                WorkWentOn::dispatch();
                $meanwhile?->__invoke();
                Sleep::for(100)->milliseconds();
            }

            return array_map(
                static fn (ProcessResult $result): object => self::handedOver($result, $what),
                $pool->wait()->collect()->values()->all(),
            );
        } finally {
            $pool->running()->each->signal(SIGTERM);
        }
    }

    /** What such a process writes, to hand something over. */
    public static function written(object $what): string
    {
        return base64_encode(serialize($what));
    }

    /**
     * @template T of object
     *
     * @param class-string<T> $what
     * @return T
     *
     * @throws Overtaken
     */
    private static function handedOver(ProcessResult $result, string $what): object
    {
        if ($result->exitCode() === Overtaken::EXIT) {
            throw new Overtaken();
        }
        $one = $result->successful() ? unserialize(base64_decode($result->output())) : null;
        if (! $one instanceof $what) {
            $said = mb_substr(mb_scrub(trim("{$result->errorOutput()}\n{$result->output()}")), 0, 2000);
            throw new \RuntimeException("a process beside this one has failed: {$said}");
        }

        return $one;
    }
}
