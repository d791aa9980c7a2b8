<?php

declare(strict_types=1);

namespace Standins\Platforms;

use Standins\Ads\AdPath;
use Standins\Ads\Text;

/**
 * Northquay's servers putting a click URL together from what they have stored.
 *
 * Written from the platform's rules, not from the application's code, so that each can find the other's mistakes.
 */
final readonly class NorthquayClick
{
    private const SPELLED = [
        'match' => ['exact' => 'e', 'phrase' => 'p', 'broad' => 'b'],
        'device' => ['desktop' => 'd', 'mobile' => 'm', 'tablet' => 't'],
        'net' => ['search' => 's', 'partner' => 'p', 'display' => 'x'],
    ];

    private const ALL = ['account', 'campaign', 'group', 'ad'];

    /** @param array<string, string> $facts of the click */
    public function __construct(private AdPath $path, private array $facts, private bool $clickId) {}

    public function url(): string
    {
        $url = (string) $this->path->text('ad', 'landing');
        $suffix = $this->path->nearest('suffix', self::ALL);
        if ($suffix !== null) {
            $url = Text::add($url, $this->fill($suffix, null));
        }
        if ($this->clickId) {
            $url = Text::add($url, 'nqcid='.rawurlencode($this->facts['click']));
        }
        $template = match ($this->path->type()) {
            'listing' => null,
            'video' => $this->path->text('campaign', 'template'),
            default => $this->path->nearest('template', self::ALL),
        };

        return $template === null ? $url : $this->fill($template, $url);
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
                $mend =
                    $mend
                    || ($landing !== null
                        && $this->isRaw($body, $i === 0)
                        && str_contains(explode('#', $landing)[0], '?'));
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
        if (preg_match('/^(phone-only|search-only|sites-only):(.*)$/is', $body, $m) === 1) {
            $holds = match (strtolower($m[1])) {
                'phone-only' => $this->facts['device'] === 'mobile',
                'search-only' => in_array($this->facts['net'], ['search', 'partner'], true),
                default => $this->facts['net'] === 'display',
            };

            return $holds ? $this->fill($m[2], $landing) : '';
        }
        $ids = ['campaign.id' => 'campaign', 'group.id' => 'group', 'ad.id' => 'ad'];
        $plain = [
            'term' => 'term',
            'placement' => 'placement',
            'product' => 'product',
            'click.id' => 'click',
            'chance' => 'chance',
        ];

        return match (true) {
            in_array($name, ['landing', 'landing.raw', 'landing.enc', 'landing.enc2'], true) => $landing === null
                ? ''
                : match (true) {
                    $this->isRaw($body, $first) => $landing,
                    $name === 'landing.enc2' => rawurlencode(rawurlencode($landing)),
                    default => rawurlencode($landing),
                },
            isset($ids[$name]) => rawurlencode($this->path->id($ids[$name])),
            isset(self::SPELLED[$name]) => self::SPELLED[$name][$this->facts[$name]] ?? '',
            $name === 'term.enc2' => rawurlencode(rawurlencode($this->facts['term'])),
            isset($plain[$name]) => rawurlencode($this->facts[$plain[$name]]),
            str_starts_with($name, 'my.') && $name !== 'my.' => $this->custom(substr($name, 3)),
            default => '{'.$body.'}',
        };
    }

    private function custom(string $name): string
    {
        $value = $this->path->custom($name, ['campaign', 'group', 'ad']);

        return implode(
            '',
            array_map(
                fn (string $bit): string => preg_match('/^\{([^{}]*)\}$/', $bit, $m) !== 1
                    ? rawurlencode($bit)
                    : (preg_match('/^(landing|my\.|if\.)/i', $m[1]) === 1
                        ? ''
                        : $this->inCustom($m[1])),
                preg_split('/(\{[^{}]*\})/', (string) $value, -1, PREG_SPLIT_DELIM_CAPTURE) ?: [],
            ),
        );
    }

    /** Only tokens that give a value are filled inside a custom parameter; unknown ones give nothing there. */
    private function inCustom(string $body): string
    {
        $filled = $this->token($body, false, null);

        return $filled === '{'.$body.'}' ? '' : $filled;
    }
}
