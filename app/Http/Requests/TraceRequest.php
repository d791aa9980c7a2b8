<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** A click that is to be traced: its context, and texts that are tried. */
final class TraceRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'context' => 'nullable|array|max:30',
            'context.*' => 'nullable|string|max:2000',
            'texts' => ['nullable', 'array', 'list', 'max:20', new OfClient($this->client(), 'nodesEver', 20, 'node')],
            'texts.*' => 'array:node,slot,custom,text',
            'texts.*.node' => 'required|integer',
            'texts.*.slot' => 'required|in:template,suffix,landing,custom',
            'texts.*.custom' => 'nullable|string|max:191',
            'texts.*.text' => 'nullable|string|max:10000',
        ];
    }
}
