<?php

namespace App\Http\Requests;

/** A word of a key, and what takes its place. */
final class WordRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'key' => 'required|string|max:100',
            'word' => 'required|string|max:500',
            'use' => 'nullable|string|max:500|different:word',
        ];
    }
}
