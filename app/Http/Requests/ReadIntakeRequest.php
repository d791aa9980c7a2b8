<?php

namespace App\Http\Requests;

use Illuminate\Validation\Rule;

/** What the tables of an intake mean, as a person has confirmed it. */
final class ReadIntakeRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'revision' => 'required|integer|min:1',
            'title' => 'required|string|max:100',
            'cells' => 'array:decimal,blank,totals',
            'cells.decimal' => [Rule::in(['.', ','])],
            'cells.blank' => 'array|list|max:50',
            'cells.blank.*' => 'string|max:100',
            'cells.totals' => 'array|list|max:50',
            'cells.totals.*' => 'string|max:100',
            'tables' => 'required|array|list|min:1|max:100',
            'tables.*' => 'array:title,use,level,rowKind,columns',
            'tables.*.title' => 'required|string|max:100',
            'tables.*.use' => 'required|boolean',
            'tables.*.level' => 'nullable|string|max:64',
            'tables.*.rowKind' => 'nullable|array:column,values',
            'tables.*.columns' => 'present|array|list|max:'.config('limits.columns'),
        ];
    }
}
