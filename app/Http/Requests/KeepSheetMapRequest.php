<?php

namespace App\Http\Requests;

/** A sheet map (vestigon.sheet-map/1) that is to be kept. */
final class KeepSheetMapRequest extends ApiRequest
{
    /** @return array<string, mixed> what it says in full, SheetMapReader looks at */
    public function rules(): array
    {
        return [
            'title' => 'required|string|max:100',
            'dialect' => 'required|string|max:40',
            'tables' => 'required|array|max:'.config('limits.sheet_map_tables'),
        ];
    }
}
