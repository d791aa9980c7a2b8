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
            // for accounts that did not come as sheets; others go out in the shape that they came in
            'map' => ['nullable', 'integer', new OfClient($this->client(), 'sheetMaps')],
            'as' => 'in:csv,tsv,xlsx,ods',
        ];
    }
}
