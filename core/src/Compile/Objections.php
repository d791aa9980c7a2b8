<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Template\Distinct;

/** What in the parts of an account, once they are compiled, speaks against what was decided above them. */
final readonly class Objections
{
    /**
     * @param list<string> $ads on which it should be decided too: one of each kind that something can't be had
     *     for, or would be lost for
     * @param bool $loses would anything be lost that arrives today?
     */
    public function __construct(public array $ads = [], public bool $loses = false) {}

    public static function in(Compiled $part): self
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
        return new self([...$this->ads, ...$other->ads], $this->loses || $other->loses);
    }
}
