<?php

namespace App\Http\Requests;

/** A file in base64, with the name that it has where it comes from. */
final class NamedFileRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['name' => 'required|string|max:255', 'content' => 'required|string'];
    }
}
