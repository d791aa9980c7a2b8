<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A file of an intake. It comes in parts, and can go on where it was.
 *
 * @property int $id
 * @property int $intake_id
 * @property Intake $intake
 * @property string $name as the person has it
 * @property int $bytes
 * @property int $received
 */
final class IntakeFile extends Model
{
    use NumberedInAddresses;

    protected $guarded = [];

    /** @return BelongsTo<Intake, $this> */
    public function intake(): BelongsTo
    {
        return $this->belongsTo(Intake::class);
    }

    public function path(): string
    {
        return $this->intake->folder()."/{$this->id}";
    }

    public function isWhole(): bool
    {
        return $this->received === $this->bytes;
    }
}
