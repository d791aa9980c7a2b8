<?php

namespace App\Http\Requests;

/** A web server's log, in base64; also packed with gzip. */
final class LogFileRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['name' => 'required|string|max:255', 'content' => 'required|string'];
    }
}
