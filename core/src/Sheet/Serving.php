<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** Does an element run? What is gone is in no proof and no compilation. */
enum Serving: string
{
    case On = 'on';
    case Paused = 'paused';
    case Gone = 'gone';
}
