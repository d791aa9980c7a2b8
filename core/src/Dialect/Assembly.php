<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

/** How a platform puts the click URL together. */
final readonly class Assembly
{
    /**
     * @param bool $suffixJoinsClick the suffix joins the click URL; else the landing URL
     * @param bool $mendsQuestionMark a second `?` behind a raw landing token becomes `&`
     * @param bool $mendsFragment a raw landing token's fragment moves to the very end
     * @param bool $plusForSpace values write a space as `+`
     */
    public function __construct(
        public bool $suffixJoinsClick,
        public bool $mendsQuestionMark,
        public bool $mendsFragment,
        public bool $plusForSpace,
    ) {}
}
