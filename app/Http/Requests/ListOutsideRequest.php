<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** Which changes from outside are wanted. */
final class ListOutsideRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'account' => ['integer', new OfClient($this->client(), 'accounts')],
            'decided' => 'in:0,1',
            'offset' => 'integer|min:0|max:10000000',
        ];
    }
}
