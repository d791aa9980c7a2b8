<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\Token;

/** How a platform can give a field's value for one campaign type: a token of its own, or text set on the nodes that own the field. */
final readonly class Means
{
    /**
     * @param Token|null $token a native value token
     * @param Role|null $owner the role of the nodes that own the field, where there is no token
     */
    private function __construct(public ?Token $token, public ?Role $owner) {}

    /**
     * @param bool $shaped every present value already has the shape
     * @return self|null null: it can't be given by any means
     */
    public static function for(string $field, Shape $shape, bool $shaped, Dialect $dialect, ?string $campaignType): ?self
    {
        $owner = Fields::owner($field);
        if ($shape === Shape::AsIs || ($owner !== null && $shaped)) {
            $token = $dialect->tokenFor($field, $campaignType);
            if ($token !== null && ! ($dialect->namesFreeze && str_ends_with($field, '.name'))) {
                return new self($token, null);
            }
        }

        return $owner !== null && $dialect->levelOf($owner) !== null ? new self(null, $owner) : null;
    }
}
