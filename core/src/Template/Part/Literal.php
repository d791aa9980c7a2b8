<?php

declare(strict_types=1);

namespace Vestigon\Core\Template\Part;

use Vestigon\Core\Template\Part;

/** Text that is sent as it stands. */
final readonly class Literal extends Part
{}
