<?php

namespace App\Http\Requests;

/** A part of a file: where it begins, and its bytes. */
final class IntakePartRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'from' => 'required|integer|min:0',
            'content' => 'required|string',
        ];
    }
}
