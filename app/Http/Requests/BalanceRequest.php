<?php

namespace App\Http\Requests;

use App\Balance\Stairs;
use App\Http\Rules\OfClient;
use Illuminate\Validation\Rule;

/** Of which days, and of what, the clicks are followed. */
final class BalanceRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'from' => 'required|date_format:Y-m-d',
            'to' => 'required|date_format:Y-m-d|after_or_equal:from',
            'by' => ['required', 'string', Rule::in(Stairs::BY)],
            'platform' => 'nullable|string|max:40',
            'account' => ['nullable', 'integer', new OfClient($this->client(), 'accounts')],
            'reading' => ['nullable', 'integer', new OfClient($this->client(), 'readings')],
            'campaign' => ['nullable', 'integer', new OfClient($this->client(), 'nodesEver')],
        ];
    }

    /** As it was meant, in a reading; null: as it arrived. */
    public function reading(): ?int
    {
        return $this->validated('reading') === null ? null : (int) $this->validated('reading');
    }

    /** @return array{0: string, 1: int|string}|null */
    public function within(): ?array
    {
        foreach (['campaign', 'account', 'platform'] as $of) {
            if ($this->validated($of) !== null) {
                return [$of, $this->validated($of)];
            }
        }

        return null;
    }
}
