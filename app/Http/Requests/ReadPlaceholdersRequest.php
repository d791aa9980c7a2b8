<?php

namespace App\Http\Requests;

use Vestigon\Core\Learn\Placeholders;

/** A platform's list of placeholders, as it was pasted. */
final class ReadPlaceholdersRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['text' => 'required|string|max:'.Placeholders::LONGEST];
    }
}
