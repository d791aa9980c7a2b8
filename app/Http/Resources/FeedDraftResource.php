<?php

namespace App\Http\Resources;

use App\Models\FeedDraft;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/**
 * A feed's draft, as the interface shows it.
 *
 * @mixin FeedDraft
 * @property-read \App\Models\User|null $maker
 * @property-read \App\Models\User|null $decider
 */
final class FeedDraftResource extends JsonResource
{
    public static $wrap = null;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->id,
            'state' => $this->state,
            'why' => $this->why,
            'rules' => $this->rules,
            'reads' => $this->reads,
            'problem' => $this->problem,
            'madeBy' => $this->maker?->name,
            'madeAt' => $this->made_at->toIso8601ZuluString(),
            'decidedBy' => $this->decider?->name,
            'decidedAt' => $this->decided_at?->toIso8601ZuluString(),
            'mayApply' => $this->mayBeAppliedBy($request->user(), $request->route('client')),
        ];
    }
}
