<?php

namespace App\Http\Requests;

/** A product list as a file, in base64. */
final class FeedFileRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['content' => 'required|string'];
    }
}
