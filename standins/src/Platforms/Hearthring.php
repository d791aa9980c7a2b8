<?php

declare(strict_types=1);

namespace Standins\Platforms;

use Standins\Ads\AdPath;
use Standins\Ads\Platform;
use Standins\Ads\Text;

/** Hearthring: only posts have a suffix, and names stay as they were when the post was published. */
final readonly class Hearthring extends Platform
{
    public function __construct()
    {
        parent::__construct('hearthring', 'Hearthring', 'hearth-3385', 'hr', [
            'account' => 'account',
            'campaign' => 'campaign',
            'audience' => 'group',
            'post' => 'ad',
        ]);
    }

    public function click(AdPath $path, array $facts, array $settings): string
    {
        $names = ['campaign:name' => 'campaign', 'audience:name' => 'audience', 'post:name' => 'post'];
        $ids = ['campaign:id' => 'campaign', 'audience:id' => 'audience', 'post:id' => 'post'];
        $suffix = Text::fill(
            (string) $path->text('post', 'suffix'),
            '[',
            ']',
            static fn (string $name): ?string => match (true) {
                isset($names[$name]) => rawurlencode($path->publishedName($names[$name])),
                isset($ids[$name]) => rawurlencode($path->id($ids[$name])),
                $name === 'spot' => rawurlencode($facts['placement']),
                $name === 'surface' => rawurlencode($facts['surface']),
                default => null,
            },
        );

        return Text::add(
            Text::add((string) $path->text('post', 'landing'), $suffix),
            'hrcid='.rawurlencode($facts['click']),
        );
    }

    protected function slots(): array
    {
        return ['suffix' => [['post'], 1024], 'landing' => [['post'], 2048]];
    }
}
