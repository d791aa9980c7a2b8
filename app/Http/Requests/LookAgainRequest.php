<?php

namespace App\Http\Requests;

use Vestigon\Core\Sheet\HeadingRow;

/** How a table of an intake stands in its file, where that was not found rightly. */
final class LookAgainRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'revision' => 'required|integer|min:1',
            'title' => 'required|string|max:100',
            'headingRow' => 'present|nullable|integer|min:1|max:'.HeadingRow::WITHIN,
            'delimiter' => ['present', 'nullable', 'string', 'in:",",;,|,'."\t"],
            'encoding' => 'present|nullable|in:UTF-8,Windows-1252',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'headingRow.max' => 'Headings are looked for in the first '.HeadingRow::WITHIN.' rows.',
            'delimiter.in' => 'Between cells stands a comma, a semicolon, a tab or a bar.',
        ];
    }
}
