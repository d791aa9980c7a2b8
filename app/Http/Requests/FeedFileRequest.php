<?php

namespace App\Http\Requests;

/** A part of a product list that is put in as a file: which file, how long it is, where the part begins, its bytes. */
final class FeedFileRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'file' => ['required', 'string', 'regex:/^[a-z0-9-]{8,40}$/'],
            'bytes' => 'required|integer|min:1|max:'.config('limits.feed_bytes'),
            'from' => 'required|integer|min:0',
            'content' => 'required|string',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'bytes.min' => 'The list is empty.',
            'bytes.max' => 'The list is larger than '.(config('limits.feed_bytes') >> 20).' MB.',
        ];
    }
}
