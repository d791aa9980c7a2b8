<?php

declare(strict_types=1);

namespace Standins\Platforms;

use Standins\Ads\AdPath;
use Standins\Ads\Platform;
use Standins\Ads\Text;

/** Pellworth Search: templates with name tokens, tags of its own, fragments mended, spaces as a plus. */
final readonly class Pellworth extends Platform
{
    private const ALL = ['account', 'campaign', 'group', 'ad'];

    private const MATCH = ['exact' => 'ex', 'phrase' => 'ph', 'broad' => 'br'];

    private const SCREEN = ['desktop' => 'desk', 'mobile' => 'hand', 'tablet' => 'tab'];

    public function __construct()
    {
        parent::__construct(
            'pellworth',
            'Pellworth Search',
            'pell-2093',
            'pw',
            array_combine(self::ALL, self::ALL),
        );
    }

    public function click(AdPath $path, array $facts, array $settings): string
    {
        $landing = $this->tagged(
            (string) $path->text('ad', 'landing'),
            $path,
            $facts,
            (string) ($settings['autoTags'] ?? 'off'),
        );
        if ($settings['clickId'] ?? false) {
            $landing = Text::add($landing, 'pwcid='.rawurlencode($facts['click']));
        }
        $template = $path->nearest('template', self::ALL);
        if ($template === null) {
            return $landing;
        }
        $moved = '';
        $click = Text::fill($template, '{', '}', function (string $body, bool $first) use (
            $landing,
            $path,
            $facts,
            &$moved,
        ): string {
            $name = strtolower($body);
            if ($name === 'landingpage' && $first) {
                $moved = Text::fragment($landing);

                return substr($landing, 0, strlen($landing) - strlen($moved));
            }

            return match (true) {
                $name === 'landingpage', $name === 'landingpageencoded' => rawurlencode($landing),
                str_starts_with($name, 'own-') && $name !== 'own-' => $this->own(substr($body, 4), $path, $facts),
                default => $this->value($name, $path, $facts),
            };
        });

        return $click.$moved;
    }

    /** @param array<string, string> $facts */
    private function value(string $name, AdPath $path, array $facts): string
    {
        return Text::plus(
            match ($name) {
                'searchphrase' => $facts['term'],
                'matchedas' => self::MATCH[$facts['match']] ?? '',
                'screen' => self::SCREEN[$facts['device']] ?? '',
                'campaigntitle' => $path->name('campaign'),
                'campaignno' => $path->id('campaign'),
                'grouptitle' => $path->name('group'),
                'groupno' => $path->id('group'),
                'adno' => $path->id('ad'),
                'visit' => $facts['click'],
                default => '',
            },
        );
    }

    /** @param array<string, string> $facts */
    private function own(string $name, AdPath $path, array $facts): string
    {
        $text = $path->custom($name, ['campaign', 'group', 'ad']) ?? '';
        $out = '';
        foreach (preg_split('/(\{[^{}]*\})/', $text, -1, PREG_SPLIT_DELIM_CAPTURE) ?: [] as $bit) {
            $out .=
                preg_match('/^\{(.*)\}$/', $bit, $m) === 1
                    ? $this->value(strtolower($m[1]), $path, $facts)
                    : Text::plus($bit);
        }

        return $out;
    }

    /** @param array<string, string> $facts */
    private function tagged(string $url, AdPath $path, array $facts, string $mode): string
    {
        $tags = [
            'utm_source' => 'pellworth',
            'utm_medium' => 'cpc',
            'utm_campaign' => $path->name('campaign'),
            'utm_content' => $path->id('ad'),
            'utm_term' => $facts['term'],
        ];
        if ($mode === 'replace') {
            $url = $this->without($url, array_keys($tags));
        }
        if ($mode !== 'off') {
            $there = array_keys($this->pairs($url));
            foreach ($tags as $key => $value) {
                if ($mode === 'replace' || ! in_array($key, $there, true)) {
                    $url = Text::add($url, $key.'='.Text::plus($value));
                }
            }
        }

        return $url;
    }

    /** @return array<string, list<string>> key → its pieces as they stand */
    private function pairs(string $url): array
    {
        $pairs = [];
        foreach (explode('&', (string) parse_url($url, PHP_URL_QUERY)) as $piece) {
            $pairs[urldecode(explode('=', $piece, 2)[0])][] = $piece;
        }

        return $pairs;
    }

    /** @param list<string> $keys */
    private function without(string $url, array $keys): string
    {
        $pieces = array_merge(...array_values(array_diff_key($this->pairs($url), array_flip($keys))));
        $front = explode('?', explode('#', $url, 2)[0], 2)[0];

        return $front
            .(array_filter($pieces, strlen(...)) === [] ? '' : '?'.implode('&', $pieces))
            .Text::fragment($url);
    }

    public function problem(string $level, string $column, string $name, ?string $value, array $after): ?string
    {
        $noLanding =
            $column === 'slots'
            && $name === 'template'
            && $value !== null
            && preg_match('/\{LandingPage(Encoded)?\}/i', $value) !== 1;

        return parent::problem($level, $column, $name, $value, $after)
            ?? ($noLanding ? 'a template needs {LandingPage} or {LandingPageEncoded}' : null);
    }

    protected function switches(): array
    {
        return ['clickId' => [true, false], 'autoTags' => ['off', 'fill', 'replace']];
    }

    protected function slots(): array
    {
        return ['template' => [self::ALL, 2048], 'landing' => [['ad'], 1024]];
    }

    protected function customProblem(string $level, string $name, ?string $value, array $after): ?string
    {
        return match (true) {
            $level === 'account' => 'own parameters start at the campaign',
            count($after) > 4 => 'four own parameters at most',
            $name === '' || strlen($name) > 24 => 'a name of 1 to 24 characters is wanted',
            $value !== null && mb_strlen($value) > 150 => 'a value has at most 150 characters',
            default => null,
        };
    }
}
