<?php

namespace App\Http\Resources;

use App\Models\Change;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/**
 * A change as it stands in the list of all.
 *
 * @mixin Change
 */
final class ChangeEntry extends JsonResource
{
    public static $wrap;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->id,
            'title' => $this->title,
            'status' => $this->status->value,
            'account' => $this->account->name,
            'author' => $this->author->name,
            'writes' => (int) $this->story_writes,
            'ads' => $this->story_ads === null ? null : (int) $this->story_ads,
            'together' => $this->together,
            'at' => $this->created_at?->toIso8601String(),
        ];
    }
}
