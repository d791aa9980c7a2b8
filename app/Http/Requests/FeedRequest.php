<?php

namespace App\Http\Requests;

/** Where a product list comes from, how often, and how it is read. */
final class FeedRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        $needed = $this->isMethod('POST') ? 'required' : 'sometimes';

        return [
            'name' => "{$needed}|string|max:120",
            'address' => 'nullable|string|max:2000|url:http,https',
            'everyMinutes' => 'nullable|integer|min:5|max:10080',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['address.url' => '“:input” is no address of a web page. It begins with https:// or http://.'];
    }

    /** @return array<string, mixed> columns of the table */
    public function columns(): array
    {
        $columns = [];
        foreach (['name' => 'name', 'address' => 'address', 'everyMinutes' => 'every_minutes'] as $key => $column) {
            if (array_key_exists($key, $this->validated())) {
                $columns[$column] = $this->validated($key);
            }
        }

        return $columns;
    }
}
