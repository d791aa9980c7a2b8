<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Level;
use Vestigon\Core\Dialect\Role;

/** What headings and cells of exports usually say (common practice of the trade, no source). */
final class TradeWords
{
    public const LEVELS = [
        'account' => ['account', 'advertiser', 'customer', 'client'],
        'folder' => ['folder', 'programme', 'program', 'portfolio', 'campaign group'],
        'campaign' => ['campaign'],
        'group' => ['ad group', 'adgroup', 'ad set', 'group', 'audience'],
        'ad' => ['ad', 'creative', 'banner', 'post', 'item', 'teaser', 'advert'],
    ];

    private const ID = ['id', 'number', 'no', 'no.', '#', 'key'];

    private const NAME = ['', 'name', 'title', 'label'];

    private const TYPE = ['type', 'kind', 'format'];

    private const STANDING = ['status', 'state', 'standing'];

    private const SLOTS = [
        'template' => ['tracking template', 'tracking url', 'tracking', 'template', 'click url'],
        'suffix' => ['url suffix', 'suffix', 'url parameters', 'query', 'tracking parameters'],
        'landing' => [
            'final url',
            'landing page',
            'landing url',
            'landing',
            'destination url',
            'destination',
            'target url',
            'url',
            'page',
            'link',
        ],
    ];

    private const OTHERS = [
        'custom' => ['custom parameters', 'custom parameter'],
        'keyword.text' => ['keyword', 'keyword text', 'search keyword'],
        'keyword.match' => ['match type', 'match', 'keyword match type', 'keyword match'],
        'day' => ['day', 'date'],
        'impressions' => ['impressions', 'views'],
        'clicks' => ['clicks'],
        'cost' => ['cost', 'costs', 'spend'],
        'conversions' => ['conversions', 'orders', 'sales'],
        'value' => ['value', 'conversion value', 'revenue'],
    ];

    private const SERVING = [
        'on' => ['on', 'active', 'enabled', 'running', 'live', 'yes'],
        'paused' => ['paused', 'off', 'stopped', 'disabled', 'inactive', 'no'],
        'gone' => ['removed', 'deleted', 'archived', 'ended', 'gone'],
    ];

    private const MATCH = [
        'exact' => ['exact', 'exact match'],
        'phrase' => ['phrase', 'phrase match'],
        'broad' => ['broad', 'broad match'],
    ];

    /** @var array<string, string> heading → what it means, as in a map */
    private array $meanings = [];

    public function __construct(private readonly Dialect $dialect)
    {
        foreach (self::SLOTS as $slot => $headings) {
            $this->meanings += array_fill_keys($headings, "slot.{$slot}");
        }
        foreach (self::OTHERS as $means => $headings) {
            $this->meanings += array_fill_keys($headings, $means);
        }
        foreach (self::STANDING as $word) {
            $this->meanings += [$word => 'standing'];
        }
        foreach ($dialect->levels as $level) {
            foreach ($this->namesOf($level) as $name) {
                foreach (self::ID as $word) {
                    $this->meanings += ["{$name} {$word}" => "{$level->id}.id"];
                }
                foreach (self::NAME as $word) {
                    $this->meanings += [trim("{$name} {$word}") => "{$level->id}.name"];
                }
                foreach (self::STANDING as $word) {
                    $this->meanings += ["{$name} {$word}" => "{$level->id}.standing"];
                }
                foreach ($level->role === Role::Campaign ? self::TYPE : [] as $word) {
                    $this->meanings += ["{$name} {$word}" => "{$level->id}.type"];
                }
                foreach (self::SLOTS as $slot => $headings) {
                    foreach ($headings as $heading) {
                        $this->meanings += ["{$name} {$heading}" => "slot.{$slot}"];
                    }
                }
            }
        }
    }

    /** What a heading usually means, as in a map (`campaign.standing` is a campaign's own); null: that is not known. */
    public function meaning(string $heading): ?string
    {
        $folded = Headings::folded(strtr($heading, ['_' => ' ', '-' => ' ']));

        return $this->meanings[$folded] ?? $this->meanings[Headings::folded($heading)] ?? null;
    }

    /** The level that a word names; null: none. */
    public function level(string $word): ?string
    {
        foreach ($this->dialect->levels as $level) {
            if (in_array(Headings::folded($word), $this->namesOf($level), true)) {
                return $level->id;
            }
        }

        return null;
    }

    /** What a cell of an export's own words says; null: that is not known. */
    public function said(Says $what, string $cell): ?string
    {
        $words = match ($what) {
            Says::Standing => self::SERVING,
            Says::KeywordMatch => self::MATCH,
            Says::Type => array_combine(
                $this->dialect->campaignTypes,
                array_map(static fn (string $t): array => [Headings::folded($t)], $this->dialect->campaignTypes),
            ),
            default => [],
        };
        foreach ($words as $said => $cells) {
            if (in_array(Headings::folded($cell), $cells, true)) {
                return (string) $said;
            }
        }

        return null;
    }

    /** @return list<string> what a level is called, by the platform and by others */
    private function namesOf(Level $level): array
    {
        return array_values(
            array_unique([
                Headings::folded($level->label),
                Headings::folded($level->id),
                ...self::LEVELS[$level->role->value],
            ]),
        );
    }
}
