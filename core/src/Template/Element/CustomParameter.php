<?php

declare(strict_types=1);

namespace Vestigon\Core\Template\Element;

use Vestigon\Core\Template\Element;

/** A name that a person gave a value to on some node. */
final readonly class CustomParameter extends Element
{
    public function __construct(int $offset, string $source, public string $name)
    {
        parent::__construct($offset, $source);
    }
}
