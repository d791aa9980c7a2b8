<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Sheet;

use Vestigon\Core\Sheet\Certainty;

/** What a column of orders or page views might say, and why. */
final readonly class SuggestedEventColumn
{
    /**
     * @param EventColumn|null $means null: nothing of an event
     * @param string $why a sentence
     */
    public function __construct(public ?EventColumn $means, public Certainty $certainty, public string $why) {}
}
