<?php

declare(strict_types=1);

namespace Vestigon\Core\Template;

/** A stretch of a template: where it begins in the text (bytes), and the text as typed. */
abstract readonly class Element
{
    public function __construct(public int $offset, public string $source) {}
}
