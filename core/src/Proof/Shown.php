<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Node;

/** The findings that ads show alike. */
final readonly class Shown
{
    /**
     * @param Node $by the ad that they were found with
     * @param list<Tally> $tallies
     * @param list<array{string, string}> $spelled the fixed values of the ads' own texts, see Spellings
     */
    public function __construct(public Node $by, public array $tallies, public array $spelled) {}
}
