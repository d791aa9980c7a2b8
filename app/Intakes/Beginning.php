<?php

namespace App\Intakes;

use App\Jobs\ImportAccounts;
use App\Models\Account;
use App\Models\ImportStatus;
use App\Models\Intake;
use App\Models\IntakeStatus;
use Illuminate\Support\Facades\DB;

/** Begins the import of what an intake's rows make; its map is kept for the next time. */
final readonly class Beginning
{
    public function __construct(private Intake $intake) {}

    /**
     * @param array<string, bool> $whole level → is what the sheets do not have gone?
     * @return bool false: it is not as the person has seen it any more
     */
    public function begin(int $revision, array $whole, int $user): bool
    {
        return DB::transaction(function () use ($revision, $whole, $user): bool {
            $intake = Intake::query()->with('client', 'account.link')->lockForUpdate()->findOrFail($this->intake->id);
            if ($intake->status !== IntakeStatus::Read || $intake->revision !== $revision) {
                return false;
            }
            $account = $intake->account ?? $this->account($intake);
            $connection = $account->link;
            $connection->update(['shape' => ['map' => $intake->map, 'tables' => $this->shape($intake)]]);
            $import = $intake->client
                ->imports()
                ->create([
                    'connection_id' => $connection->id,
                    'status' => ImportStatus::Queued,
                    'user_id' => $user,
                ]);
            $intake->client
                ->sheetMaps()
                ->updateOrCreate(
                    ['dialect' => $intake->dialect, 'title' => $intake->map['title'] ?? $intake->name],
                    ['document' => $intake->map, 'user_id' => $user],
                );
            $intake->update([
                'status' => IntakeStatus::Begun,
                'account_id' => $account->id,
                'whole' => $whole,
                'import_id' => $import->id,
                'revision' => $revision + 1,
            ]);
            ImportAccounts::dispatch($import->id)->afterCommit();

            return true;
        }, 5);
    }

    private function account(Intake $intake): Account
    {
        $connection = $intake->client
            ->connections()
            ->create([
                'dialect' => $intake->dialect,
                'title' => "{$intake->name} (sheets)",
                'credentials' => [],
                'reads_by' => 'sheet',
                'writes_by' => 'sheet',
            ]);

        return $intake->client
            ->accounts()
            ->create([
                'connection_id' => $connection->id,
                'external_id' => $intake->number,
                'dialect' => $intake->dialect,
                'name' => $intake->name,
            ])
            ->setRelation('link', $connection);
    }

    /** @return list<array<string, mixed>> what it takes to send a change out in the same shape */
    private function shape(Intake $intake): array
    {
        $shape = [];
        foreach ($intake->tables ?? [] as $look) {
            if ($look['use']) {
                $shape[] = [
                    'title' => $look['title'],
                    'name' => $look['name'],
                    'form' => $look['form'],
                    'headingAt' => Looks::headingAt($look),
                    'first' => array_slice($look['first'], 0, 40),
                ];
            }
        }

        return $shape;
    }
}
