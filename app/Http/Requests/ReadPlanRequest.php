<?php

namespace App\Http\Requests;

/** A plan as a file. */
final class ReadPlanRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['name' => 'required|string|max:255', 'content' => 'required|string'];
    }
}
