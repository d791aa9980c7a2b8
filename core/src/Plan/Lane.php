<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Template\Distinct;

/** The clicks for which one thing is true by a plan: those of a campaign type, under the plan itself or a variant. */
final readonly class Lane
{
    /** One text for it, to tell lanes apart by. */
    public string $id;

    /**
     * @param string|null $type campaign type; null: there is none
     * @param string $variant its id; empty: the plan itself
     */
    public function __construct(public ?string $type, public string $variant = '')
    {
        $this->id = Distinct::of($type, $variant);
    }
}
