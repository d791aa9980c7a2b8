<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** An account whose names are held against patterns. */
final class ReadNamesRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'document' => 'nullable|array', // without one, what is agreed on
            'account' => ['required', 'integer', new OfClient($this->client(), 'accounts')],
        ];
    }
}
