<?php

namespace App\Http\Requests;

/** A file that is about to come. */
final class AddIntakeFileRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => 'required|string|max:255',
            'bytes' => 'required|integer|min:1|max:'.config('limits.intake_bytes'),
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'bytes.min' => 'The file is empty.',
            'bytes.max' => 'The file has more than '.(config('limits.intake_bytes') >> 20)
                .' MB. Pack it (.gz or .zip), or take it in parts.',
        ];
    }
}
