<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** A change that is to be drafted: of an account, of what was chosen in it, of all accounts, or of texts by hand. */
final class DraftChangeRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'account' => ['required_without:every', 'integer', new OfClient($this->client(), 'accounts')],
            'every' => 'boolean',
            'title' => 'required|string|max:200',
            'reason' => 'nullable|string|max:2000',
            'over' => 'array',
            'over.nodes' => ['array', new OfClient($this->client(), 'nodes', 5000)],
            'over.q' => 'nullable|string|max:200',
            'over.state' => 'nullable|in:proven,broken,untracked',
            'filter' => ['nullable', 'integer', new OfClient($this->client(), 'filters')],
            'existing' => 'required_without:texts|in:keep,replace',
            'carrier' => 'required_without:texts|in:fewest,template,suffix',
            'switches' => 'in:may,leave',
            'texts' => ['array', 'list', 'min:1', 'max:1000', new OfClient($this->client(), 'nodes', 1000, 'node')],
            'texts.*' => 'array:node,slot,custom,text',
            'texts.*.node' => 'required|integer',
            'texts.*.slot' => 'required|in:template,suffix,landing,custom,setting,name',
            'texts.*.custom' => 'nullable|string|max:191',
            'texts.*.text' => 'nullable|string|max:10000',
        ];
    }
}
