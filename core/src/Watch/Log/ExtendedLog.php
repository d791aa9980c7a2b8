<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Log;

/** The Extended Log File Format (W3C working draft WD-logfile-960323): fields are named in the file; times are GMT. */
final class ExtendedLog implements LogForm
{
    /** @var list<string> */
    private array $fields = [];

    private string $day = '';

    public function read(string $line): ?Served
    {
        if ($this->isDirective($line)) {
            $this->directive($line);

            return null;
        }
        preg_match_all('~"((?:[^"]|"")*)"|\S+~', $line, $found, PREG_SET_ORDER);
        if ($this->fields === [] || count($found) !== count($this->fields)) {
            return null;
        }
        $said = [];
        foreach ($found as $i => $one) {
            $text = isset($one[1]) ? str_replace('""', '"', $one[1]) : $one[0];
            $said[$this->fields[$i]] = $text === '-' ? '' : $text;
        }
        $at = strtotime(($said['date'] ?? $this->day).' '.($said['time'] ?? '').' UTC');
        $query = $said['cs-uri-query'] ?? '';
        $target = $said['cs-uri'] ?? ($said['cs-uri-stem'] ?? '').($query === '' ? '' : "?{$query}");
        if ($at === false || $target === '' || ! isset($said['time'])) {
            return null;
        }

        return new Served(
            $at * 1000,
            $said['cs-method'] ?? 'GET',
            $target,
            (int) ($said['sc-status'] ?? 200),
            $said['cs(referer)'] ?? '',
            str_replace('+', ' ', $said['cs(user-agent)'] ?? ''),
            $said['cs(host)'] ?? ($said['cs-host'] ?? ''),
            $said['c-ip'] ?? '',
        );
    }

    public function isDirective(string $line): bool
    {
        return $line === '' || $line[0] === '#' || trim($line) === '';
    }

    private function directive(string $line): void
    {
        if (preg_match('~^#Fields:\s*(.*)$~i', $line, $found) === 1) {
            $this->fields = preg_split('~\s+~', strtolower(trim($found[1])), -1, PREG_SPLIT_NO_EMPTY) ?: [];
        } elseif (preg_match('~^#Date:\s*(\S+)~i', $line, $found) === 1) {
            $this->day = $found[1];
        }
    }
}
