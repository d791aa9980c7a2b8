<?php

declare(strict_types=1);

namespace Standins\Northquay;

/**
 * Northquay's servers putting a click URL together from what they have stored.
 *
 * Written from the platform's rules, not from the application's code, so that each can find the other's mistakes.
 */
final readonly class Click
{
    private const SPELLED = [
        'match' => ['exact' => 'e', 'phrase' => 'p', 'broad' => 'b'],
        'device' => ['desktop' => 'd', 'mobile' => 'm', 'tablet' => 't'],
        'net' => ['search' => 's', 'partner' => 'p', 'display' => 'x'],
    ];

    /**
     * @param list<array<string, mixed>> $path account, campaign, group, ad: rows of the store
     * @param array<string, string> $facts of the click: term, match, device, net, placement, product, click.id, chance
     */
    public function __construct(private array $path, private array $facts, private bool $clickId) {}

    public function url(): string
    {
        $type = (string) $this->path[1]['type'];
        $url = (string) $this->stored(3, 'landing');
        $suffix = $this->nearest('suffix', [0, 1, 2, 3]);
        if ($suffix !== null) {
            $url = $this->add($url, $this->fill($suffix, null));
        }
        if ($this->clickId) {
            $url = $this->add($url, 'nqcid='.rawurlencode($this->facts['click.id']));
        }
        $template = match ($type) {
            'listing' => null,
            'video' => $this->nearest('template', [1]),
            default => $this->nearest('template', [0, 1, 2, 3]),
        };

        return $template === null ? $url : $this->fill($template, $url);
    }

    /** @param list<int> $levels */
    private function nearest(string $slot, array $levels): ?string
    {
        foreach (array_reverse($levels) as $level) {
            if (($text = $this->stored($level, $slot)) !== null) {
                return $text;
            }
        }

        return null;
    }

    private function stored(int $level, string $slot): ?string
    {
        $text = trim(json_decode((string) $this->path[$level]['slots'], true)[$slot] ?? '');

        return $text === '' ? null : $text;
    }

    private function add(string $url, string $query): string
    {
        $query = preg_replace('/^[?&]+/', '', $query);
        if ($query === '') {
            return $url;
        }
        [$front, $fragment] = array_pad(explode('#', $url, 2), 2, null);
        $glue = preg_match('/[?&]$/', $front) ? '' : (str_contains($front, '?') ? '&' : '?');

        return $front.$glue.$query.($fragment === null ? '' : "#{$fragment}");
    }

    private function fill(string $text, ?string $landing): string
    {
        $out = '';
        $mend = false;
        for ($i = 0, $n = strlen($text); $i < $n;) {
            $end = $text[$i] === '{' ? $this->closing($text, $i) : null;
            if ($end !== null) {
                $body = substr($text, $i + 1, $end - $i - 1);
                $out .= $this->token($body, $i === 0, $landing);
                $mend = $mend || ($landing !== null && $this->isRaw($body, $i === 0) && str_contains(explode('#', $landing)[0], '?'));
                $i = $end + 1;

                continue;
            }
            $char = $text[$i++];
            $out .= $mend && $char === '?' ? '&' : $char;
            $mend = false;
        }

        return $out;
    }

    private function isRaw(string $body, bool $first): bool
    {
        return strtolower($body) === 'landing.raw' || (strtolower($body) === 'landing' && $first);
    }

    private function closing(string $text, int $open): ?int
    {
        for ($i = $open, $depth = 0, $n = strlen($text); $i < $n; $i++) {
            $depth += ['{' => 1, '}' => -1][$text[$i]] ?? 0;
            if ($depth === 0) {
                return $i;
            }
        }

        return null;
    }

    private function token(string $body, bool $first, ?string $landing): string
    {
        $name = strtolower($body);
        if (preg_match('/^(if\.mobile|if\.search|if\.display):(.*)$/is', $body, $m) === 1) {
            $holds = match (strtolower($m[1])) {
                'if.mobile' => $this->facts['device'] === 'mobile',
                'if.search' => in_array($this->facts['net'], ['search', 'partner'], true),
                default => $this->facts['net'] === 'display',
            };

            return $holds ? $this->fill($m[2], $landing) : '';
        }
        $ids = ['campaign.id' => 1, 'group.id' => 2, 'ad.id' => 3];

        return match (true) {
            in_array($name, ['landing', 'landing.raw', 'landing.enc', 'landing.enc2'], true) => $landing === null ? '' : match (true) {
                $this->isRaw($body, $first) => $landing,
                $name === 'landing.enc2' => rawurlencode(rawurlencode($landing)),
                default => rawurlencode($landing),
            },
            isset($ids[$name]) => rawurlencode((string) $this->path[$ids[$name]]['id']),
            isset(self::SPELLED[$name]) => self::SPELLED[$name][$this->facts[$name]] ?? '',
            $name === 'term.enc2' => rawurlencode(rawurlencode($this->facts['term'])),
            array_key_exists($name, $this->facts) => rawurlencode($this->facts[$name]),
            str_starts_with($name, 'my.') && $name !== 'my.' => $this->custom(substr($name, 3)),
            default => '{'.$body.'}',
        };
    }

    private function custom(string $name): string
    {
        foreach ([3, 2, 1] as $level) {
            foreach (json_decode((string) $this->path[$level]['custom'], true) as $key => $value) {
                if (strtolower((string) $key) === $name) {
                    return implode('', array_map(
                        fn (string $bit): string => preg_match('/^\{([^{}]*)\}$/', $bit, $m) !== 1 ? rawurlencode($bit)
                            : (isset($this->facts[strtolower($m[1])]) || str_ends_with($m[1], '.id') ? $this->token($m[1], false, null) : ''),
                        preg_split('/(\{[^{}]*\})/', (string) $value, -1, PREG_SPLIT_DELIM_CAPTURE) ?: [],
                    ));
                }
            }
        }

        return '';
    }
}
