<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** Which page of an account's table is wanted. */
final class ListRowsRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'parent' => ['nullable', 'integer', new OfClient($this->client(), 'nodesEver')],
            'under' => ['nullable', 'integer', new OfClient($this->client(), 'nodes')],
            'q' => 'nullable|string|max:100',
            'state' => 'nullable|in:proven,broken,untracked,gone',
            'offset' => 'nullable|integer|min:0|max:100000000',
            'limit' => 'nullable|integer|min:1|max:200',
        ];
    }
}
