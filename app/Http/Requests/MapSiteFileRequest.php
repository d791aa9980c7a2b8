<?php

namespace App\Http\Requests;

use Illuminate\Validation\Rule;
use Vestigon\Core\Sheet\DayOrder;
use Vestigon\Core\Watch\Sheet\EventColumn;

/** What the columns of a sheet's tables say, each by its place. */
final class MapSiteFileRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'tables' => 'required|list|max:200',
            'tables.*' => 'required|array:use,means,decimal,days',
            'tables.*.use' => 'required|boolean:strict',
            'tables.*.means' => 'present|list|max:16384',
            'tables.*.means.*' => ['present', 'nullable', Rule::enum(EventColumn::class)],
            'tables.*.decimal' => 'required|in:".",","',
            'tables.*.days' => ['present', 'nullable', Rule::enum(DayOrder::class)],
        ];
    }
}
