<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Dialect\SlotKind;

/** The ways of carrying a plan that a platform has. */
final readonly class Ways
{
    /**
     * @param non-empty-list<Way> $forAll to serve all ads, the usual one first
     * @param list<Way> $apart by which some ads may be served apart from the rest; none: all alike
     */
    private function __construct(public array $forAll, public array $apart) {}

    public static function of(Task $task): self
    {
        $ways = self::on($task);

        return $task->way === null ? $ways : $ways->with($task->way);
    }

    private static function on(Task $task): self
    {
        if ($task->policy->carrier !== Carrier::Fewest) {
            return new self([new Way($task->policy->carrier)], []);
        }
        $dialect = $task->account->dialect;
        $ways = [];
        if ($dialect->slot(SlotKind::Suffix) !== null) {
            $ways[] = new Way(Carrier::Suffix);
        }
        if ($dialect->slot(SlotKind::Template) !== null) {
            $ways[] = new Way(Carrier::Template);
            if (self::mayJoinOn($task->account)) {
                $ways[] = new Way(Carrier::Template, joinsOn: true);
            }
        }
        $landing = new Way(Carrier::Landing);
        if ($ways === []) {
            return new self([$landing], []);
        }
        if ($task->kept->any()) {
            array_push($ways, ...array_map(static fn (Way $w): Way => $w->sparing(), $ways));
        }
        $others = [
            ...array_map(static fn (Way $w): Way => $w->writtenOut(), $ways),
            ...array_map(
                static fn (Way $w): Way => $w->tidied(),
                $dialect->slot(SlotKind::Template) === null ? [] : $ways,
            ),
            ...array_map(static fn (Way $w): Way => $w->split(), $ways),
        ];

        // landing URLs are the last resort: where there is nothing else, or where what ads send already is not to be
        // touched
        return new self($task->keeps() ? [...$ways, $landing] : $ways, [
            ...$ways,
            ...$others,
            $landing,
            Way::asItIs(),
        ]);
    }

    /** The same, with one way chosen for all. */
    public function with(Way $chosen): self
    {
        return new self([$chosen], $chosen->isLandingUrls() ? [] : $this->apart);
    }

    /** Where a second `?` is not mended, it matters whether the page has a query; inside a redirect it never is. */
    private static function mayJoinOn(Account $account): bool
    {
        return ($account->dialect->rawLanding() !== null && ! $account->dialect->assembly->mendsQuestionMark)
            || $account->hops !== [];
    }
}
