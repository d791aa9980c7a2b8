<?php

namespace App\Http\Requests;

use App\Dialects\Dialects;
use Closure;

/** A program of one's own that speaks for an ad platform. */
final class ConnectRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'title' => 'required|string|max:100',
            'dialect' => ['required', 'string', 'max:40', $this->known(...)],
            'address' => ['required', 'string', 'max:500', 'url:http,https', $this->encrypted(...)],
            'token' => 'required|string|max:2000',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['address.url' => '“:input” is no address. Write it like https://adapter.example/northquay.'];
    }

    private function known(string $attribute, mixed $id, Closure $fail): void
    {
        if (! is_string($id) || app(Dialects::class)->find($this->client()->id, $id) === null) {
            $fail('There is no such platform. Describe it first, under Platforms.');
        }
    }

    /** A token goes over the line: encrypted, but to stand-ins on this machine. */
    private function encrypted(string $attribute, mixed $address, Closure $fail): void
    {
        $parts = parse_url((string) $address) ?: [];
        $isNear = in_array(
            ($parts['host'] ?? '').':'.($parts['port'] ?? 80),
            config('platforms.near'),
            true,
        );
        if (($parts['scheme'] ?? '') !== 'https' && ! $isNear) {
            $fail('The address must begin with https://: the token is sent to it.');
        }
        if (isset($parts['query']) || isset($parts['fragment']) || isset($parts['user'])) {
            $fail('The address has neither a query, a # nor a sign-in in it; the token stands apart.');
        }
    }
}
