<?php

namespace App\Troubles;

/** What is wrong. */
enum TroubleKind: string
{
    /** ads of which a click shows that the plan is not kept */
    case Broken = 'broken';

    /** ads that the plan says nothing can be proven of */
    case Untracked = 'untracked';

    /** sessions of ads that are counted in another channel than the plan wants */
    case Elsewhere = 'elsewhere';

    /** ads with clicks of which nothing arrives */
    case Silent = 'silent';

    /** what was changed outside and breaks ads */
    case Outside = 'outside';

    /** accounts that nobody has brought in for long */
    case Stale = 'stale';

    /** elements whose names are off the patterns that were agreed on */
    case Names = 'names';

    /** what arrives otherwise than was agreed on */
    case Arrives = 'arrives';

    /** lists that don't come, or whose links are not as they should be */
    case Feed = 'feed';

    /** links that people place themselves, and that are not as they should be */
    case Link = 'link';

    /** What it is in a line, where that is the same for all of its kind. */
    public function says(): ?string
    {
        return match ($this) {
            self::Untracked => 'nothing of the plan arrives',
            self::Silent => 'clicks, and nothing that arrives is known to be theirs',
            self::Outside => 'changed outside, which breaks ads',
            self::Stale => 'not brought in for long',
            default => null,
        };
    }
}
