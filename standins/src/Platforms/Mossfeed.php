<?php

declare(strict_types=1);

namespace Standins\Platforms;

use Standins\Ads\AdPath;
use Standins\Ads\Platform;
use Standins\Ads\Text;

/** Mossfeed: the campaign's suffix joins behind everything, spaces become a plus, what it does not know stays. */
final readonly class Mossfeed extends Platform
{
    public function __construct()
    {
        parent::__construct('mossfeed', 'Mossfeed', 'moss-9047', 'mf', [
            'account' => 'account',
            'campaign' => 'campaign',
            'item' => 'ad',
        ]);
    }

    public function click(AdPath $path, array $facts, array $settings): string
    {
        $suffix = Text::fill(
            (string) $path->text('campaign', 'suffix'),
            '~',
            '~',
            static fn (string $name): ?string => match ($name) {
                'site' => Text::plus($facts['publisher']),
                'siteid' => Text::plus($facts['publisherId']),
                'campaign' => Text::plus($path->id('campaign')),
                'item' => Text::plus($path->id('item')),
                'headline' => Text::plus($path->name('item')),
                'click' => Text::plus($facts['click']),
                default => null,
            },
        );

        return Text::add((string) $path->text('item', 'landing'), $suffix);
    }

    protected function slots(): array
    {
        return ['suffix' => [['campaign'], 800], 'landing' => [['item'], 1000]];
    }
}
