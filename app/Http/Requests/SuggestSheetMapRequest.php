<?php

namespace App\Http\Requests;

/** The headings of a platform's sheet. */
final class SuggestSheetMapRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'dialect' => 'required|string|max:40',
            'headings' => 'required|array|max:'.config('limits.columns'),
            'headings.*' => 'required|string|max:200',
        ];
    }
}
