<?php

namespace App\Http\Requests;

/** The parts of a name, and the pattern to put them together by. */
final class ComposeNameRequest extends ApiRequest
{
    /** @return array<string, mixed> what the pattern says, the core looks at */
    public function rules(): array
    {
        return [
            'document' => 'required|array',
            'values' => 'present|array|max:50',
            'values.*' => 'nullable|string|max:500',
        ];
    }
}
