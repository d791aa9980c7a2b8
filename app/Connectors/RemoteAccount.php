<?php

namespace App\Connectors;

use App\Models\Node;
use Closure;
use Illuminate\Database\Eloquent\Builder;

/** An account as its platform announces it. */
final readonly class RemoteAccount
{
    /**
     * @param int $nodes how many elements it has
     * @param (Closure(Builder<Node>): Builder<Node>)|null $lost narrows its elements to those that are not there any
     *     more; null: all that are not delivered
     */
    public function __construct(
        public string $id,
        public string $name,
        public int $nodes,
        public ?Closure $lost = null,
    ) {}
}
