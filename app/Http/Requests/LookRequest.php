<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** A sample that was opened. */
final class LookRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'node' => ['required', 'integer', new OfClient($this->client(), 'nodes')],
            'draft' => 'required|integer',
        ];
    }
}
