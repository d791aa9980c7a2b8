<?php

namespace App\Http\Requests;

/** What is agreed on anew, and from which day. */
final class SaveAgreementRequest extends ApiRequest
{
    /** @return array<string, mixed> what the document says, the core looks at */
    public function rules(): array
    {
        return [
            'revision' => 'required|integer|min:0',
            'fromDay' => 'nullable|date_format:Y-m-d',
            'document' => 'required|array',
        ];
    }
}
