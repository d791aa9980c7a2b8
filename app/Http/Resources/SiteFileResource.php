<?php

namespace App\Http\Resources;

use App\Models\SiteFile;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @mixin SiteFile */
final class SiteFileResource extends JsonResource
{
    public static $wrap;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->id,
            'name' => $this->name,
            'kind' => $this->kind,
            'bytes' => $this->bytes,
            'cameAt' => $this->came_at->toIso8601ZuluString(),
            'state' => $this->state,
            'lines' => $this->lines,
            'taken' => $this->taken,
            'leftOut' => (object) ($this->left_out ?? []),
            'problem' => $this->problem,
        ];
    }
}
