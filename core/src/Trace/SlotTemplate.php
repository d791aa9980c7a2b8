<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Account\SlotText;
use Vestigon\Core\Template\Template;

/** The text of a slot that counts, read. */
final readonly class SlotTemplate
{
    public function __construct(public SlotText $slot, public Template $template) {}
}
