<?php

declare(strict_types=1);

namespace Vestigon\Core\Command;

use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** Answers requests on the command line. */
interface Command
{
    /** @throws UnusableInput with the place of the first thing that is wrong */
    public function answer(Cursor $request): Answer;
}
