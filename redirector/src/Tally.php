<?php

declare(strict_types=1);

namespace Vestigon\Redirector;

/**
 * Writes down that a short address was opened, by whom not: a file a minute, a line each, which the application counts
 * when it gets to it.
 */
final readonly class Tally
{
    public function __construct(private string $folder) {}

    public function opened(int $link, bool $isProgram, int $now): void
    {
        $file = "{$this->folder}/".gmdate('YmdHi', $now);
        $line = $link.($isProgram ? " p\n" : " v\n");
        if (@file_put_contents($file, $line, FILE_APPEND) === false) {
            @mkdir($this->folder, 0o770, true);
            file_put_contents($file, $line, FILE_APPEND);
        }
    }
}
