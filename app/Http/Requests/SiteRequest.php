<?php

namespace App\Http\Requests;

use Illuminate\Validation\Rule;

/** A site whose pages report what arrives. */
final class SiteRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => [
                'required',
                'string',
                'max:60',
                Rule::unique('collectors', 'site')->where('client_id', $this->client()->id),
            ],
            'hosts' => 'required|array|list|min:1|max:50',
            'hosts.*' => ['required', 'string', 'max:255', 'regex:'.HostName::PATTERN],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['hosts.*.regex' => HostName::WRONG, 'name.unique' => 'There is a site “:input” already.'];
    }
}
