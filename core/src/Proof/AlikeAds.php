<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Node;

/** Ads of which the same is true, and how many they are. */
final class AlikeAds
{
    public int $ads = 0;

    /**
     * @param Node $first the ad that this was found with
     * @param Verdict|null $verdict null: nothing was to be proven
     * @param Shown|null $shown null: no findings are wanted
     */
    public function __construct(
        public readonly Node $first,
        public readonly ?Verdict $verdict,
        public readonly ?Shown $shown,
    ) {}
}
