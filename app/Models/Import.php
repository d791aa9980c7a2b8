<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * @property int $id
 * @property int $client_id
 * @property Connection $link
 * @property string $step what is being done
 * @property ImportStatus $status
 * @property int $total
 * @property int $done
 * @property string|null $problem
 * @property string|null $notes what a person should know of one that went well
 */
final class Import extends Model
{
    protected $guarded = [];

    protected $casts = ['status' => ImportStatus::class, 'finished_at' => 'datetime'];

    /** @return BelongsTo<Connection, $this> */
    public function link(): BelongsTo
    {
        return $this->belongsTo(Connection::class, 'connection_id');
    }

    /** @return array<string, mixed> */
    public function summary(): array
    {
        return [
            'id' => $this->id,
            'connection' => $this->link->title,
            'status' => $this->status,
            'step' => $this->step,
            'total' => $this->total,
            'done' => $this->done,
            'problem' => $this->problem,
            'notes' => $this->notes,
        ];
    }
}
