<?php

namespace App\Http\Requests;

/** A click on a platform as it is being written. */
final class TryPlatformRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'text' => 'required|string|max:500000',
            'nodes' => 'array|max:10',
            'nodes.*.level' => 'required|string|max:60',
            'nodes.*.name' => 'nullable|string|max:500',
            'nodes.*.type' => 'nullable|string|max:60',
            'nodes.*' => 'array:level,name,type,slots,custom,attributes',
            'nodes.*.slots' => 'array|max:10',
            'nodes.*.slots.*' => 'nullable|string|max:10000',
            'nodes.*.custom' => 'array|max:30',
            'nodes.*.custom.*' => 'nullable|string|max:2000',
            'nodes.*.attributes' => 'array|max:30',
            'nodes.*.attributes.*' => 'nullable|string|max:2000',
            'context' => 'array|max:30',
            'context.*' => 'nullable|string|max:2000',
            'settings' => 'array',
            'settings.clickId' => 'nullable|boolean',
            'settings.autoTags' => 'nullable|in:off,fill,replace',
            'settings.delivery' => 'nullable|in:sequence,parallel',
        ];
    }
}
