<?php

declare(strict_types=1);

namespace Vestigon\Core\Edit;

use Vestigon\Core\Dialect\SlotKind;

/** What is done to many texts alike. */
interface Edit
{
    /**
     * @param SlotKind|null $kind null: a custom parameter's value
     * @param string|null $text null: nothing is set there
     * @return string|null the text after; null clears
     */
    public function of(?SlotKind $kind, ?string $text): ?string;
}
