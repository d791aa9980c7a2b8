<?php

namespace App\Http\Requests;

use App\Links\Wanted;

/** What is to be otherwise about a link: where it leads, how it is called, until when. */
final class ChangeLinkRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'title' => 'string|max:200',
            'landing' => 'required_with:pairs|string|max:200000',
            'pairs' => 'required_with:landing|array|max:40',
            'pairs.*' => 'nullable|string|max:2000',
            'why' => 'nullable|string|max:500',
            'forwards' => 'boolean',
            'endsAt' => 'nullable|date',
        ];
    }

    /** Where it is to lead; null: where it does. */
    public function to(): ?Wanted
    {
        $wanted = $this->validated();

        return isset($wanted['landing']) ? Wanted::of($wanted) : null;
    }
}
