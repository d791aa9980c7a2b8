<?php

namespace App\Http\Requests;

/** A client's name, and in whose time and money it counts. */
final class ClientRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => 'required|string|max:100',
            'timeZone' => 'required|string|timezone:all',
            // ISO 4217, as PHP's intl knows it
            'currency' => [
                'required',
                'string',
                static function (string $field, mixed $code, \Closure $fail): void {
                    $known = \ResourceBundle::create('en', 'ICUDATA-curr')?->get('Currencies');
                    $isCode = is_string($code) && preg_match('/^[A-Z]{3}$/D', $code) === 1;
                    if (! $isCode || $known?->get($code) === null) {
                        $fail('A currency is wanted by its three letters, such as EUR.');
                    }
                },
            ],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['timeZone.timezone' => 'There is no such time zone. Write it like Europe/Oslo.'];
    }
}
