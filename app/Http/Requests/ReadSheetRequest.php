<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** A sheet that has come back. */
final class ReadSheetRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'map' => ['nullable', 'integer', new OfClient($this->client(), 'sheetMaps')],
            'name' => 'required|string|max:255',
            'content' => 'required|string',
        ];
    }
}
