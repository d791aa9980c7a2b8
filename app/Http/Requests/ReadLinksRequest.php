<?php

namespace App\Http\Requests;

/** Links as a sheet. */
final class ReadLinksRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['name' => 'required|string|max:255', 'content' => 'required|string'];
    }
}
