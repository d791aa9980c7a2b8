<?php

namespace App\Http\Requests;

/** A platform's document that may be kept. */
final class WeighPlatformRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['text' => 'required|string|max:500000'];
    }
}
