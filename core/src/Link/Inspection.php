<?php

declare(strict_types=1);

namespace Vestigon\Core\Link;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Inspector;
use Vestigon\Core\Findings\Severity;

/** What is wrong with a link, the worst first. */
final readonly class Inspection
{
    /** @param list<LinkRule> $rules */
    private function __construct(private array $rules) {}

    /** @param non-empty-list<Dialect> $dialects platforms whose tokens may have been left in */
    public static function all(array $dialects): self
    {
        return new self([
            new Rule\NoPage(),
            new Rule\OwnShortAddress(),
            new Rule\TooLong(),
            new Rule\KeyTwice(),
            new Rule\PersonalData(),
            new Rule\TokenLeft($dialects),
            new Rule\UnknownWord(),
            new Rule\CapitalLetters(),
            new Rule\SpaceInValue(),
            new Rule\NoSource(),
            new Rule\InNoChannel(),
        ]);
    }

    /** @return list<Finding> */
    public function of(Sight $sight): array
    {
        $found = [];
        foreach ($this->rules as $rule) {
            array_push($found, ...$rule->check($sight));
        }

        return Inspector::sorted($found);
    }

    /** @param list<Finding> $findings may a link that has them be made? */
    public static function allows(array $findings): bool
    {
        return array_filter($findings, static fn (Finding $f): bool => $f->severity === Severity::Error) === [];
    }
}
