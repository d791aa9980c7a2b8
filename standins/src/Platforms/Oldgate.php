<?php

declare(strict_types=1);

namespace Standins\Platforms;

use Standins\Ads\AdPath;
use Standins\Ads\Platform;

/** Oldgate Portal: landing URLs of groups and ads, sent as they stand. */
final readonly class Oldgate extends Platform
{
    public function __construct()
    {
        parent::__construct('oldgate', 'Oldgate Portal', 'gate-4402', 'og', [
            'account' => 'account',
            'campaign' => 'campaign',
            'group' => 'group',
            'ad' => 'ad',
        ]);
    }

    public function click(AdPath $path, array $facts, array $settings): string
    {
        return (string) $path->nearest('landing', ['group', 'ad']);
    }

    protected function slots(): array
    {
        return ['landing' => [['group', 'ad'], 1024]];
    }
}
