<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Log;

/** The Combined Log Format, as Apache's documentation of its logs has it; also the Common one, without the last two. */
final class CombinedLog implements LogForm
{
    private const LINE =
        '~^(?<who>\S+) \S+ (?:.*?) ?\[(?<at>[^\]]+)\] "(?<request>(?:[^"\\\\]|\\\\.)*)" (?<status>\d{3}) (?:\d+|-)'.
        '(?: "(?<referrer>(?:[^"\\\\]|\\\\.)*)" "(?<agent>(?:[^"\\\\]|\\\\.)*)")?~';

    public function read(string $line): ?Served
    {
        if (preg_match(self::LINE, $line, $found) !== 1) {
            return null;
        }
        $at = \DateTimeImmutable::createFromFormat('d/M/Y:H:i:s O', $found['at']);
        $request = explode(' ', self::plain($found['request']));
        if ($at === false || count($request) < 2) {
            return null;
        }

        return new Served(
            $at->getTimestamp() * 1000,
            $request[0],
            $request[1],
            (int) $found['status'],
            self::said($found['referrer'] ?? ''),
            self::said($found['agent'] ?? ''),
            who: $found['who'],
        );
    }

    public function isDirective(string $line): bool
    {
        return trim($line) === '';
    }

    private static function said(string $text): string
    {
        return $text === '-' ? '' : self::plain($text);
    }

    /** Quotes and backslashes are written with one before them, others than print as \xhh. */
    private static function plain(string $text): string
    {
        return str_contains($text, '\\')
            ? (string) preg_replace_callback(
                '~\\\\(x[0-9a-fA-F]{2}|.)~s',
                static fn (array $m): string => strlen($m[1]) === 3 ? chr((int) hexdec(substr($m[1], 1))) : $m[1],
                $text,
            )
            : $text;
    }
}
