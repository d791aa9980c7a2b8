<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Factories\HasFactory;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;

/**
 * Files that are being brought in as one account: what their columns mean, and what their rows make.
 *
 * @property int $id
 * @property int $client_id
 * @property Client $client
 * @property int|null $account_id the account that they are of; null: a new one
 * @property int|null $import_id
 * @property string $dialect
 * @property string $number the account's, on its platform
 * @property string $name the account's
 * @property IntakeStatus $status
 * @property int $revision grows with everything that people change
 * @property array<string, mixed>|null $map a sheet map, as a person has confirmed it
 * @property array<string, bool>|null $whole level → are its elements complete?
 * @property list<array<string, mixed>>|null $tables what each looks like, see App\Intakes\Looks
 * @property array<string, mixed>|null $counts
 * @property int $done rows
 * @property string|null $problem why it could not be read
 */
final class Intake extends Model
{
    /** @use HasFactory<\Database\Factories\IntakeFactory> */
    use HasFactory, NumberedInAddresses;

    protected $guarded = [];

    protected $casts = [
        'status' => IntakeStatus::class,
        'map' => 'array',
        'whole' => 'array',
        'tables' => 'array',
        'counts' => 'array',
    ];

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class);
    }

    /** @return BelongsTo<Account, $this> */
    public function account(): BelongsTo
    {
        return $this->belongsTo(Account::class);
    }

    /** @return HasMany<IntakeFile, $this> */
    public function files(): HasMany
    {
        return $this->hasMany(IntakeFile::class)->orderBy('id');
    }

    /** Where its files are kept while it is open. */
    public function folder(): string
    {
        return storage_path("intakes/{$this->id}");
    }

    /** What was kept on the way is not needed any more. */
    public function clear(): void
    {
        File::deleteDirectory($this->folder());
        foreach (['staged', 'staged_figures'] as $table) {
            do {
                $gone = DB::table($table)->where('intake_id', $this->id)->limit(5000)->delete();
            } while ($gone > 0);
        }
    }
}
