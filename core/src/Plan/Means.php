<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\Token;

/**
 * How a platform can give a field's value for one campaign type: a token of its own, or text set on the nodes that own
 * the field.
 */
final readonly class Means
{
    /**
     * @param Token|null $token a native value token
     * @param Role|null $owner the role of the nodes that own the field, where there is no token
     */
    private function __construct(public ?Token $token, public ?Role $owner) {}

    /** Does the platform spell all the field's values in this shape by itself? */
    private static function spellsIn(Shape $shape, Token $token): bool
    {
        return $token->values !== null && $token->values === array_map($shape->of(...), $token->values);
    }

    /** The token that gives the same inside so many hops, each of which decodes once; null: there is none. */
    public function tokenAt(int $depth, Dialect $dialect, ?string $campaignType): ?Token
    {
        if ($this->token === null || $depth === 0) {
            return $this->token;
        }
        $deeper = $dialect->tokenFor($this->token->field, $campaignType, 1 + $depth);

        return $deeper?->values === $this->token->values ? $deeper : null;
    }

    /**
     * @param bool $shaped every present value already has the shape
     * @return self|null null: it can't be given by any means
     */
    public static function for(
        string $field,
        Shape $shape,
        bool $shaped,
        Dialect $dialect,
        ?string $campaignType,
    ): ?self {
        $owner = Fields::owner($field);
        $token = $dialect->tokenFor($field, $campaignType);
        $freezes = $dialect->namesFreeze && $owner !== null && str_ends_with($field, '.name');
        if (
            $token !== null
            && ! $freezes
            && ($shape === Shape::AsIs || ($owner !== null && $shaped) || self::spellsIn($shape, $token))
        ) {
            return new self($token, null);
        }

        return $owner !== null && $dialect->levelOf($owner) !== null ? new self(null, $owner) : null;
    }
}
