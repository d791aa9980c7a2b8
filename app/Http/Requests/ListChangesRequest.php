<?php

namespace App\Http\Requests;

use App\Models\Change;
use App\Models\ChangeStatus;
use Illuminate\Database\Eloquent\Relations\HasMany;

/** Which changes are wanted: of a state, of a person, older than one. */
final class ListChangesRequest extends ApiRequest
{
    /** @return array<string, string> */
    public function rules(): array
    {
        return [
            'state' => 'nullable|in:open,over,dropped',
            'by' => 'nullable|integer|min:1',
            'before' => 'nullable|integer|min:1',
        ];
    }

    /**
     * @param HasMany<Change, *> $changes
     * @return HasMany<Change, *>
     */
    public function narrowed(HasMany $changes): HasMany
    {
        match ($this->validated('state')) {
            'open' => $changes->whereNotIn('status', ChangeStatus::over()),
            'over' => $changes->whereIn('status', ChangeStatus::over())->whereNot('status', ChangeStatus::Dropped),
            'dropped' => $changes->where('status', ChangeStatus::Dropped),
            default => $changes->whereNot('status', ChangeStatus::Dropped),
        };

        return $changes
            ->when($this->validated('by'), static fn ($q, $person) => $q->where('user_id', $person))
            ->when($this->validated('before'), static fn ($q, $id) => $q->where('id', '<', $id));
    }
}
