<?php

namespace App\Http\Requests;

/** Many URLs, to be read back: lines as they were pasted, be they URLs or not. */
final class ManyUrlsRequest extends ApiRequest
{
    public const MOST = 10_000;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'kind' => 'nullable|in:csv,xlsx',
            'urls' => [
                'required',
                'array',
                'list',
                'max:'.self::MOST,
                static function (string $field, mixed $urls, \Closure $fail): void {
                    foreach (is_array($urls) ? $urls : [] as $i => $url) {
                        if (! is_string($url) || strlen($url) > config('limits.arrival_url')) {
                            $fail('Line '.($i + 1).' is no text of at most 16,000 characters.');

                            return;
                        }
                    }
                },
            ],
        ];
    }
}
