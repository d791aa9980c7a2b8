<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;

/** Below which elements it is asked what ads send. */
final class ListSendsRequest extends ApiRequest
{
    private const MOST = 40;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'nodes' => ['required', 'array', 'max:'.self::MOST, new OfClient($this->client(), 'nodes', self::MOST)],
            'nodes.*' => 'integer',
        ];
    }
}
