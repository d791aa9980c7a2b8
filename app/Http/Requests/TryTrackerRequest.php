<?php

namespace App\Http\Requests;

/** A tracker as it is being written, and a URL to follow through it. */
final class TryTrackerRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'host' => 'present|nullable|string|max:253',
            'parameter' => 'present|nullable|string|max:191',
            'forwards' => 'required|boolean',
            'adds' => 'present|array|max:20',
            'adds.*.key' => 'present|nullable|string|max:191',
            'adds.*.text' => 'present|nullable|string|max:2000',
            'url' => 'required|string|max:16000',
        ];
    }
}
