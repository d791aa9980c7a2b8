<?php

namespace App\Http\Requests;

use App\Models\Connection;

/** How often a connection is imported by itself. */
final class ScheduleRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'everyHours' => 'present|nullable|integer|in:'.implode(',', Connection::EVERY_HOURS),
            'quietFrom' => 'present|nullable|integer|between:0,23|required_with:quietUntil',
            'quietUntil' => 'present|nullable|integer|between:0,23|required_with:quietFrom|different:quietFrom',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'everyHours.in' => 'An import can begin by itself every 1, 3, 6, 12, 24 or 168 hours.',
            'quietUntil.different' => 'The quiet hours begin and end at the same hour: leave both empty for none.',
        ];
    }
}
