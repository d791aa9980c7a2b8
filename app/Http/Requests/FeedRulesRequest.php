<?php

namespace App\Http\Requests;

/** Rules for a product list's links, and how it is read; what is wrong with them the core says. */
final class FeedRulesRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'rules' => 'present|array|list|max:'.config('limits.feed_rules'),
            'rules.*' => 'array',
            'reads' => 'required|array',
            'why' => 'nullable|string|max:500',
        ];
    }
}
