<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

/** A stretch of a click URL and where it comes from. */
final readonly class Segment
{
    public function __construct(public string $text, public Origin $origin) {}

    /**
     * @return array{
     *     text: string, role: string, slot: ?string, level: ?string, node: ?string, token: ?string, field: ?string
     * }
     */
    public function toArray(): array
    {
        return [
            'text' => $this->text,
            'role' => $this->origin->role->value,
            'slot' => $this->origin->slot?->value,
            'level' => $this->origin->node?->level,
            'node' => $this->origin->node?->id,
            'token' => $this->origin->token,
            'field' => $this->origin->field,
        ];
    }
}
