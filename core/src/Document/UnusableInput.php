<?php

declare(strict_types=1);

namespace Vestigon\Core\Document;

/** A document can't be used. The message is one line and says where, what is wrong and what is wanted. */
final class UnusableInput extends \RuntimeException
{
    public static function at(string $place, string $problem): self
    {
        return new self(($place === '' ? 'document' : $place).': '.$problem);
    }
}
