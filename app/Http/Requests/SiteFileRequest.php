<?php

namespace App\Http\Requests;

/** A file that is put in for a site, in base64: a web server's log, or a sheet of orders or page views. */
final class SiteFileRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => 'required|string|max:255',
            'content' => 'required|string',
            'kind' => 'in:log,events',
        ];
    }
}
