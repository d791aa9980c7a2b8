<?php

namespace App\Http\Requests;

/** A platform of the client's own that is to be kept. */
final class SavePlatformRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'text' => 'required|string|max:500000',
            'revision' => 'required|integer|min:0',
        ];
    }
}
