<?php

namespace App\Http\Requests;

/** How a platform's sheets name their columns. */
final class KeepMappingRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => 'required|string|max:100',
            'dialect' => 'required|string|max:40',
            'columns' => 'required|array:id,name,level,template,suffix,landing,custom,result,message',
            'columns.id' => 'required|string|max:100',
            'columns.*' => 'nullable|string|max:100',
        ];
    }
}
