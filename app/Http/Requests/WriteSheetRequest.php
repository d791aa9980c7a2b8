<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** A change that is to go out as a sheet. */
final class WriteSheetRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            // without one, the sheets are of the shape that the account came in
            'mapping' => ['nullable', 'integer', new OfClient($this->client(), 'mappings')],
            'as' => 'required_with:mapping|in:csv,tsv,xlsx',
        ];
    }
}
