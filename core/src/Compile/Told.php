<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Template\Distinct;

/** What parts of an account that were compiled tell of what was decided above them. */
final readonly class Told
{
    /**
     * @param list<string> $telling ads on which it should be decided too: one of each kind that something can't be had
     *     for, or would be lost for
     * @param bool $loses would anything be lost that arrives today?
     */
    public function __construct(public array $telling = [], public bool $loses = false) {}

    public static function by(Compiled $part): self
    {
        $ads = [];
        foreach ($part->unmet as $unmet) {
            if (isset($part->will[$unmet->node])) {
                $kind = Distinct::of($unmet->key, $unmet->symptom, $unmet->isHarm() ? '' : $unmet->reason);
                $ads[$kind] ??= $unmet->node;
            }
        }

        return new self(array_values($ads), $part->lack()[0] > 0);
    }

    public function and(self $other): self
    {
        return new self([...$this->telling, ...$other->telling], $this->loses || $other->loses);
    }
}
