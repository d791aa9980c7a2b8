<?php

namespace App\Http\Requests;

/** An intake that is to be imported as it was read. */
final class BeginIntakeRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'revision' => 'required|integer|min:1',
            'whole' => 'present|array|max:20',
            'whole.*' => 'boolean',
        ];
    }
}
