<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** A choice of elements that is to be kept. */
final class KeepFilterRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => 'required|string|max:100',
            'account' => ['required', 'integer', new OfClient($this->client(), 'accounts')],
            'filter' => 'present|array',
            'filter.nodes' => ['array', new OfClient($this->client(), 'nodes', 5000)],
            'filter.q' => 'nullable|string|max:200',
            'filter.state' => 'nullable|in:proven,broken,untracked',
        ];
    }
}
