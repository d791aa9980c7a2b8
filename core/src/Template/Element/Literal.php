<?php

declare(strict_types=1);

namespace Vestigon\Core\Template\Element;

use Vestigon\Core\Template\Element;

/** Text that is sent as it stands. */
final readonly class Literal extends Element
{}
