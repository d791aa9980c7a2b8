<?php

namespace App\Http\Requests;

/** A question to results that is to be kept. */
final class KeepResultViewRequest extends ApiRequest
{
    private const CHARACTERS = 8000;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => 'required|string|max:120',
            'query' => [
                'required',
                'array',
                static function (string $field, mixed $query, \Closure $fail): void {
                    if (strlen((string) json_encode($query)) > self::CHARACTERS) {
                        $fail('The question is too long to be kept.');
                    }
                },
            ],
            'isShared' => 'boolean',
        ];
    }
}
