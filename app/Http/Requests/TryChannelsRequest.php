<?php

namespace App\Http\Requests;

/** A click's values, and the rules to try: those that are agreed on, or others. */
final class TryChannelsRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'document' => 'nullable|array',
            'values' => 'required|array|max:20',
            'values.*' => 'nullable|string|max:2000',
        ];
    }
}
