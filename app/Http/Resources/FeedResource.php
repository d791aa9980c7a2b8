<?php

namespace App\Http\Resources;

use App\Models\Feed;
use App\Models\FeedCopy;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/**
 * A feed, as the interface shows it.
 *
 * @mixin Feed
 * @property-read FeedCopy|null $kept
 * @property-read \App\Models\FeedDraft|null $applied
 */
final class FeedResource extends JsonResource
{
    public static $wrap = null;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        $held = $this->held();

        return [
            'id' => $this->id,
            'name' => $this->name,
            'address' => $this->address,
            'everyMinutes' => $this->every_minutes,
            'fetchedAt' => $this->fetched_at?->toIso8601ZuluString(),
            'nextAt' => $this->next_at?->toIso8601ZuluString(),
            'problem' => $this->problem,
            'reads' => $this->reads,
            'rules' => $this->applied->rules ?? [],
            'appliedAt' => $this->applied?->decided_at?->toIso8601ZuluString(),
            'kept' => $this->kept === null ? null : self::copy($this->kept),
            'held' => $held === null ? null : self::copy($held),
            'out' => $this->outAddress() === null
                    ? null
                    : [
                        'address' => $this->outAddress(),
                        'at' => $this->out_at?->toIso8601ZuluString(),
                        'items' => (int) $this->out_items,
                        'changed' => (int) $this->out_changed,
                    ],
            'call' => config('app.url')."/feeds/{$this->call}/again",
        ];
    }

    /** @return array<string, mixed> */
    private static function copy(FeedCopy $copy): array
    {
        return [
            'id' => $copy->id,
            'cameAt' => $copy->came_at->toIso8601ZuluString(),
            'bytes' => $copy->bytes,
            'items' => (int) $copy->items,
            'why' => $copy->why,
        ];
    }
}
