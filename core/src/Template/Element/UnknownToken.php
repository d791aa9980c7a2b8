<?php

declare(strict_types=1);

namespace Vestigon\Core\Template\Element;

use Vestigon\Core\Template\Element;

/** Marks with a body that the platform does not know; kept as typed or blank, by the dialect. */
final readonly class UnknownToken extends Element
{}
