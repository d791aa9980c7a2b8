<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Log;

/** How a web server writes its log. */
interface LogForm
{
    /**
     * @param string $line without its end
     * @return Served|null null: it tells of no request, or can't be read
     */
    public function read(string $line): ?Served;

    /** Is it a line that tells of no request, and is none that can't be read? */
    public function isDirective(string $line): bool;
}
