<?php

namespace App\Http\Resources;

use App\Models\Trouble;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/**
 * A trouble, as the interface shows it.
 *
 * @mixin Trouble
 */
final class TroubleResource extends JsonResource
{
    public static $wrap = null;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->id,
            'kind' => $this->kind->value,
            'account' => $this->account === null ? null : ['id' => $this->account->id, 'name' => $this->account->name],
            'feed' => $this->feed === null ? null : ['id' => $this->feed->id, 'name' => $this->feed->name],
            'where' => $this->place(),
            'what' => $this->what,
            'about' => $this->about === null
                    ? null
                    : ['code' => $this->about['code'], 'key' => $this->about['key']],
            'node' => $this->node_id,
            'ads' => $this->ads,
            'clicks' => $this->clicks,
            'cost' => $this->cost,
            'firstAt' => $this->first_at->toIso8601ZuluString(),
            'returnedAt' => $this->returned_at?->toIso8601ZuluString(),
            'mendedAt' => $this->mended_at?->toIso8601ZuluString(),
            'accepted' => $this->accepted_until === null
                    ? null
                    : [
                        'until' => $this->accepted_until,
                        'why' => (string) $this->accepted_why,
                        'by' => $this->acceptedBy?->name,
                    ],
        ];
    }
}
