<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** A plan that is not saved yet, and the account to hold it against. */
final class WeighPlanRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'document' => 'required|array',
            'above' => 'nullable|integer|min:0',
            'account' => ['required', 'integer', new OfClient($this->client(), 'accounts')],
        ];
    }
}
