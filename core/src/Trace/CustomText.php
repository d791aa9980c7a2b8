<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Template\Template;

/** A custom parameter's value, read, and the node that has it. */
final readonly class CustomText
{
    public function __construct(public Node $node, public Template $template) {}
}
