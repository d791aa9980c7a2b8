<?php

declare(strict_types=1);

namespace Vestigon\Core\Numbers;

/** What the cells of a report's column say of an element. */
enum By: string
{
    case Number = 'number';
    case Ending = 'ending'; // its number's last characters
    case Name = 'name';
}
