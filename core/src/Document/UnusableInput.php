<?php

declare(strict_types=1);

namespace Vestigon\Core\Document;

use Vestigon\Core\Url\Utf8;

/** A document can't be used. The message is one line and says where, what is wrong and what is wanted. */
final class UnusableInput extends \RuntimeException
{
    public static function at(string $place, string $problem): self
    {
        $line = Utf8::mended(($place === '' ? 'document' : $place).': '.$problem);

        // what was typed is quoted, so the line may hold anything, at any length
        return new self(mb_strimwidth((string) preg_replace('/[\x00-\x1F\x7F]+/', ' ', $line), 0, 500, '…'));
    }
}
