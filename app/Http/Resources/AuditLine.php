<?php

namespace App\Http\Resources;

use App\Models\AuditEntry;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @mixin AuditEntry */
final class AuditLine extends JsonResource
{
    public static $wrap;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        return [
            'at' => $this->at->toIso8601String(),
            'what' => $this->what,
            'who' => $this->user?->name,
            'address' => $this->address,
            'about' => (object) $this->about,
        ];
    }
}
