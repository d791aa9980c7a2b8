<?php

namespace App\Http\Requests;

use App\Http\Rules\Choices;
use App\Http\Rules\OfClient;

/** An edit of many texts: over what, and what it does. */
final class EditTextsRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'over' => 'present|array',
            'over.nodes' => ['array', new OfClient($this->client(), 'nodes', 5000)],
            'over.q' => 'nullable|string|max:200',
            'over.state' => 'nullable|in:proven,broken,untracked',
            'what' => 'required|array',
            'what.kind' => 'required|in:replace,set,remove,copy,paste',
            'what.slots' => ['array', new Choices(['template', 'suffix', 'landing', 'custom'])],
            'what.find' => 'nullable|string|max:2000',
            'what.with' => 'nullable|string|max:2000',
            'what.pattern' => 'boolean',
            'what.key' => 'nullable|string|max:200',
            'what.value' => 'nullable|string|max:2000',
            'what.from' => ['nullable', 'integer', new OfClient($this->client(), 'nodes')],
            'what.cells' => 'nullable|string|max:20000000',
            'title' => 'nullable|string|max:200',
            'reason' => 'nullable|string|max:2000',
        ];
    }
}
