<?php

namespace App\Http\Requests;

/** The parts of names, and the pattern to put them together by. */
final class ComposeNameRequest extends ApiRequest
{
    /** @return array<string, mixed> what the pattern says, the core looks at */
    public function rules(): array
    {
        return [
            'document' => 'required|array',
            'rows' => 'required|array|list|min:1|max:500',
            'rows.*' => 'array|max:50',
            'rows.*.*' => 'nullable|string|max:500',
        ];
    }
}
