<?php

namespace App\Models;

use App\Agreements\Agreements;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Plan\Plan as CorePlan;
use Vestigon\Core\Plan\PlanReader;

/**
 * One revision of a client's agreement.
 *
 * @property int $revision
 * @property array<string, mixed> $document
 * @property string|null $from_day from which it counts, in the client's time zone; null: ever since
 * @property bool $begun
 * @property Client $client
 * @property User|null $by
 * @property \Illuminate\Support\Carbon|null $created_at
 */
final class Plan extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    protected $casts = ['document' => 'array', 'created_at' => 'datetime', 'begun' => 'bool'];

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class);
    }

    /** @return BelongsTo<User, $this> */
    public function by(): BelongsTo
    {
        return $this->belongsTo(User::class, 'user_id');
    }

    public function read(): CorePlan
    {
        return PlanReader::read(new Cursor($this->document));
    }

    /** With the words that the client's people have agreed on. */
    public function agreed(): CorePlan
    {
        return app(Agreements::class)->words($this->client)->in($this->read(), Agreements::today($this->client));
    }
}
