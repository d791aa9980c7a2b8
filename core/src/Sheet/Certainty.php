<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** How sure a suggestion is. */
enum Certainty: string
{
    /** Heading and cells say the same. */
    case Sure = 'sure';
    /** One of them says so. */
    case Likely = 'likely';
    /** Nothing does: a person is asked. */
    case Open = 'open';
}
