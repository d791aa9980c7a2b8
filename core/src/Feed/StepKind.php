<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

/** What a step does to a link's query. */
enum StepKind: string
{
    case Set = 'set';
    case Add = 'add';
    case Take = 'take';
    case Rename = 'rename';
}
