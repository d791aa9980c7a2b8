<?php

namespace App\Models;

use App\Jobs\ImportAccounts;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Facades\DB;

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

    /**
     * Begins one, at which a worker goes on.
     *
     * @param int|null $user null: it begins by itself
     * @return self|null null: one is under way
     */
    public static function begin(Connection $connection, ?int $user): ?self
    {
        $import = DB::transaction(static function () use ($connection, $user): ?self {
            // of two who start one at once, the second sees the first
            Connection::query()->whereKey($connection->id)->lockForUpdate()->first();
            $isOpen = self::query()
                ->where('connection_id', $connection->id)
                ->whereIn('status', ImportStatus::open())
                ->exists();

            return $isOpen
                ? null
                : self::query()->create([
                    'client_id' => $connection->client_id,
                    'connection_id' => $connection->id,
                    'status' => ImportStatus::Queued,
                    'user_id' => $user,
                ]);
        }, 5);
        if ($import !== null) {
            ImportAccounts::dispatch($import->id);
        }

        return $import;
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
