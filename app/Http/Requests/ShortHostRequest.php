<?php

namespace App\Http\Requests;

/** A host of a client's own for short addresses. */
final class ShortHostRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['host' => ['required', 'string', 'max:191', 'regex:'.HostName::PATTERN, 'unique:short_hosts,host']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['host.regex' => HostName::WRONG, 'host.unique' => '“:input” leads here already.'];
    }
}
