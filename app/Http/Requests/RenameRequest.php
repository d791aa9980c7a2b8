<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** Names that elements of an account are to get in place of those that their pattern proposes. */
final class RenameRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'own' => ['array', 'list', 'max:1000', new OfClient($this->client(), 'nodes', 1000, 'node')],
            'own.*' => 'array:node,name',
            'own.*.node' => 'required|integer',
            'own.*.name' => 'nullable|string|max:255', // null: it stays as it is
        ];
    }
}
