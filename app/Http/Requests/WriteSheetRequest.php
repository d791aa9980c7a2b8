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
            'mapping' => ['required', 'integer', new OfClient($this->client(), 'mappings')],
            'as' => 'required|in:csv,tsv,xlsx',
        ];
    }
}
