<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** Which entries of the ledger are wanted. */
final class ListLedgerRequest extends ApiRequest
{
    /** A day or a moment that can be one of ours. */
    public const MOMENT = 'string|max:40|date|after:1990-01-01|before:2200-01-01';

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'account' => ['integer', new OfClient($this->client(), 'accounts')],
            'node' => ['integer', new OfClient($this->client(), 'nodesEver')],
            'change' => ['integer', new OfClient($this->client(), 'changes')],
            'from' => self::MOMENT,
            'to' => self::MOMENT,
            'before' => 'integer|min:0',
        ];
    }
}
