<?php

namespace App\Http\Resources;

use App\Models\Tracker;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @mixin Tracker */
final class TrackerView extends JsonResource
{
    public static $wrap;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->id,
            'host' => $this->host,
            'parameter' => $this->parameter,
            'forwards' => $this->forwards,
            'adds' => $this->adds,
            'revision' => $this->revision,
            'counts' => ['days' => $this->count_days, 'until' => $this->count_until],
        ];
    }
}
