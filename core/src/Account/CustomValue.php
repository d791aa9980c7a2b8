<?php

declare(strict_types=1);

namespace Vestigon\Core\Account;

/** A custom parameter's value and the node that has it. */
final readonly class CustomValue
{
    public function __construct(public Node $node, public string $text) {}
}
