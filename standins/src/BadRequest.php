<?php

declare(strict_types=1);

namespace Standins;

/** What a caller did wrong; the code is the HTTP status. */
final class BadRequest extends \RuntimeException
{
    public function __construct(string $message, int $status = 400)
    {
        parent::__construct($message, $status);
    }
}
