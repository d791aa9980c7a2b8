<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** What of an account's picture is looked into. */
final class PictureRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'root' => ['nullable', 'integer', new OfClient($this->client(), 'nodes')],
            'from' => 'nullable|integer|min:0|required_with:to',
            'to' => 'nullable|integer|min:0|required_with:from',
        ];
    }
}
