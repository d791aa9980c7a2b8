<?php

declare(strict_types=1);

namespace Vestigon\Core\Learn;

use Vestigon\Core\Sheet\TradeWords;

/** What the words of a placeholder's name or description usually say that it gives (common practice, no source). */
final readonly class HelpWords
{
    public const LANDING = 'landing';

    /** Field → what it is called; longer phrases are looked for first, and what is found is not looked at again. */
    private const OF_A_CLICK = [
        self::LANDING => [
            'landing page',
            'landing url',
            'landing',
            'destination url',
            'destination address',
            'destination',
            'final url',
            'target url',
            'click through url',
        ],
        'click.random' => ['random number', 'random', 'cache buster', 'cachebuster', 'timestamp', 'rand'],
        'click.id' => ['click id', 'click identifier', 'clickid', 'id of the click', 'click number'],
        'keyword.match' => ['match type', 'matchtype', 'keyword match'],
        'keyword.text' => ['keyword', 'search term', 'search phrase', 'search word'],
        'device' => ['device type', 'device'],
        'network' => ['network'],
        'placement' => ['placement'],
        'surface' => ['surface'],
        'publisher.id' => ['publisher id', 'publisher number', 'site id', 'siteid', 'source id', 'section id'],
        'publisher.name' => ['publisher name', 'publisher', 'site name', 'website', 'site', 'section name'],
        'page.url' => ['page url', 'article url', 'url of the page', 'address of the page', 'address of the article'],
        'product.id' => ['product id', 'product number', 'sku', 'offer id'],
    ];

    private const ATTRIBUTES = [
        'id' => ['id', 'ids', 'identifier', 'number', 'no', 'num', 'key'],
        'name' => ['name', 'title', 'label', 'headline'],
        'width' => ['width'],
        'height' => ['height'],
    ];

    /** @var array<string, string> phrase → field of a click, or a role */
    private array $phrases;

    public function __construct()
    {
        $phrases = [];
        foreach ([...self::OF_A_CLICK, ...TradeWords::LEVELS] as $means => $some) {
            $phrases += array_fill_keys($some, $means);
        }
        uksort($phrases, static fn (string $a, string $b): int => strlen($b) <=> strlen($a));
        $this->phrases = $phrases;
    }

    /**
     * @return array{string|null, bool} what it says, and is that all it can mean? A level alone is its name or its id
     */
    public function field(string $words): array
    {
        $left = self::folded($words);
        $found = [];
        foreach ($this->phrases as $phrase => $means) {
            $pattern = '/(?<= )'.preg_quote($phrase, '/').'s?(?= )/';
            if (preg_match($pattern, $left, $m, PREG_OFFSET_CAPTURE) === 1) {
                $found[$m[0][1]] ??= $means;
                $left = substr_replace($left, str_repeat('_', strlen($m[0][0])), $m[0][1], strlen($m[0][0]));
            }
        }
        if ($found === []) {
            return [null, false];
        }
        ksort($found);
        $clicks = array_values(array_intersect($found, array_keys(self::OF_A_CLICK)));
        if ($clicks !== []) {
            return [$clicks[0], count(array_unique($found)) === 1];
        }
        $role = array_values($found)[0];
        $attribute = self::attribute($left);

        return [$role.'.'.($attribute ?? 'name'), $attribute !== null && count(array_unique($found)) === 1];
    }

    /** How often it says that a URL is encoded; null: it does not say. */
    public function encoding(string $words): ?int
    {
        $folded = self::folded($words);

        return match (true) {
            preg_match('/ (un|not )(escaped|encoded)| raw | as it is /', $folded) === 1 => 0,
            preg_match('/ (twice|double|doubly|two times)( \w+)? ?(escaped|encoded)?/', $folded) === 1
                && preg_match('/escape|encod/', $folded) === 1 => 2,
            preg_match('/escape|encod/', $folded) === 1 => 1,
            default => null,
        };
    }

    private static function attribute(string $left): ?string
    {
        foreach (self::ATTRIBUTES as $attribute => $words) {
            if (preg_match('/ ('.implode('|', $words).') /', $left) === 1) {
                return $attribute;
            }
        }

        return null;
    }

    /** Small words with one space around each: `CampaignId`, `campaign_id` and `campaign id` are the same. */
    public static function folded(string $words): string
    {
        $apart = (string) preg_replace('/(?<=[a-z0-9])(?=[A-Z])/', ' ', $words);

        return ' '.trim((string) preg_replace('/[^a-z0-9]+/', ' ', strtolower($apart))).' ';
    }
}
