<?php

declare(strict_types=1);

namespace Standins\Platforms;

use Standins\Ads\AdPath;
use Standins\Ads\Platform;
use Standins\Ads\Text;

/** Reedrail: a suffix on account or campaign, tokens in landing URLs too, what it does not know vanishes. */
final readonly class Reedrail extends Platform
{
    public function __construct()
    {
        parent::__construct('reedrail', 'Reedrail', 'reed-5518', 'rr', [
            'account' => 'account',
            'campaign' => 'campaign',
            'teaser' => 'ad',
        ]);
    }

    public function click(AdPath $path, array $facts, array $settings): string
    {
        $fill = static fn (string $text): string => Text::fill(
            $text,
            '(:',
            ':)',
            static fn (string $name): string => rawurlencode(
                match ($name) {
                    'publisher' => $facts['publisher'],
                    'section' => $facts['placement'],
                    'campaign_id' => $path->id('campaign'),
                    'campaign_title' => $path->name('campaign'),
                    'teaser' => $path->id('teaser'),
                    default => '',
                },
            ),
        );
        $url = Text::add(
            $fill((string) $path->text('teaser', 'landing')),
            $fill((string) $path->nearest('suffix', ['account', 'campaign'])),
        );

        return $settings['clickId'] ?? true ? Text::add($url, 'rrcid='.rawurlencode($facts['click'])) : $url;
    }

    protected function switches(): array
    {
        return ['clickId' => [true, false]];
    }

    protected function slots(): array
    {
        return ['suffix' => [['account', 'campaign'], 600], 'landing' => [['teaser'], 1000]];
    }
}
