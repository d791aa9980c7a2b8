<?php

declare(strict_types=1);

namespace Vestigon\Core\Template\Element;

use Vestigon\Core\Dialect\Token;
use Vestigon\Core\Template\Element;
use Vestigon\Core\Template\Template;

/**
 * `name:text`: the text counts only if the token's field has one of the token's values. Its source is what stands
 * before the text.
 */
final readonly class Conditional extends Element
{
    public function __construct(
        int $offset,
        string $source,
        public Token $token,
        public Template $then,
        public string $close,
    ) {
        parent::__construct($offset, $source);
    }
}
