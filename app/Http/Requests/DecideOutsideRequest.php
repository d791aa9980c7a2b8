<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** Of which changes from outside a person decides. */
final class DecideOutsideRequest extends ApiRequest
{
    private const MOST = 1000;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'items' => ['array', 'min:1', new OfClient($this->client(), 'outsideChanges', self::MOST)],
            'items.*' => 'integer',
        ];
    }

    /** @return list<int>|null null: of all that nobody has decided of */
    public function items(): ?array
    {
        $items = $this->validated('items');

        return $items === null ? null : array_map(intval(...), array_values($items));
    }
}
