<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** Sheets that are to be brought in: of which platform, and of which account. */
final class OpenIntakeRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'dialect' => 'required|string|max:40',
            'account' => ['nullable', 'integer', new OfClient($this->client(), 'accounts')],
            'number' => 'required_without:account|string|max:191',
            'name' => 'required_without:account|string|max:255',
        ];
    }
}
