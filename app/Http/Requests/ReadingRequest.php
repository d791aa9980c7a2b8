<?php

namespace App\Http\Requests;

/** Which days are to be read as they were meant, and by the names of when. */
final class ReadingRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'from' => 'required|date_format:Y-m-d',
            'to' => 'required|date_format:Y-m-d|after_or_equal:from',
            'names' => 'required|in:today,then',
        ];
    }
}
