<?php

declare(strict_types=1);

namespace Vestigon\Core\Template\Element;

use Vestigon\Core\Dialect\Token;
use Vestigon\Core\Template\Element;

/** A landing token or a value token of the platform's catalogue. */
final readonly class CatalogueToken extends Element
{
    public function __construct(int $offset, string $source, public Token $token)
    {
        parent::__construct($offset, $source);
    }
}
