<?php

declare(strict_types=1);

namespace Standins\Platforms;

use Standins\Ads\AdPath;
use Standins\Ads\Platform;
use Standins\Ads\Text;

/** Bannerloom: nothing but each banner's landing URL, with tokens in it. */
final readonly class Bannerloom extends Platform
{
    public function __construct()
    {
        parent::__construct('bannerloom', 'Bannerloom', 'loom-1176', 'bl', [
            'account' => 'account',
            'campaign' => 'campaign',
            'banner' => 'ad',
        ]);
    }

    public function click(AdPath $path, array $facts, array $settings): string
    {
        return Text::fill(
            (string) $path->text('banner', 'landing'),
            '^^',
            '^^',
            static fn (string $name): string => rawurlencode(
                match (strtolower($name)) {
                    'banner' => $path->id('banner'),
                    'bannername' => $path->name('banner'),
                    'zone' => $facts['placement'],
                    'site' => $facts['publisher'],
                    'page' => $facts['page'],
                    'wide' => $path->fact('banner', 'width'),
                    'high' => $path->fact('banner', 'height'),
                    'stamp' => $facts['chance'],
                    default => '',
                },
            ),
        );
    }

    protected function slots(): array
    {
        return ['landing' => [['banner'], 2048]];
    }
}
