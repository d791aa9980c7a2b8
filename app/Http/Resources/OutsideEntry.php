<?php

namespace App\Http\Resources;

use App\Models\OutsideChange;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/**
 * A change that came from outside, as it stands in the list.
 *
 * @mixin OutsideChange
 */
final class OutsideEntry extends JsonResource
{
    public static $wrap;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->id,
            'account' => $this->account_id,
            'node' => $this->node_id,
            'element' => $this->node->name,
            'level' => $this->node->level,
            'isAd' => $this->node->is_ad,
            'ads' => $this->node->is_ad ? 1 : $this->node->ads,
            'kind' => $this->kind,
            'custom' => $this->name,
            'before' => $this->before,
            'after' => $this->after,
            'foundAt' => $this->found_at->toIso8601String(),
            'judged' => $this->judged,
            'breaks' => $this->breaks,
            'mends' => $this->mends,
            'canPutBack' => in_array($this->kind, OutsideChange::TEXTS, true) && $this->node->gone_at === null,
            'state' => $this->state->value,
            'change' => $this->change_id,
            'by' => $this->decider?->name,
            'decidedAt' => $this->decided_at?->toIso8601String(),
        ];
    }
}
