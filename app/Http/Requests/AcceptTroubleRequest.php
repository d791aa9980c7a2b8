<?php

namespace App\Http\Requests;

/** Why a trouble is to stay as it is, and until when. */
final class AcceptTroubleRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'until' => 'required|date_format:Y-m-d|after:today|before:+800 days',
            'why' => 'required|string|max:500',
        ];
    }
}
