<?php

namespace App\Jobs;

use App\Accounts\Importer;
use App\Accounts\Proof;
use App\Connectors\Connectors;
use App\Connectors\PlatformTrouble;
use App\Dialects\Dialects;
use App\Intakes\StagedFigures;
use App\Models\Account;
use App\Models\Import;
use App\Models\ImportStatus;
use App\Models\Intake;
use App\Watching\PlatformFigures;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Queue\Middleware\WithoutOverlapping;

/** Imports all accounts of a connection, then proves them. */
final class ImportAccounts implements ShouldQueue
{
    use Queueable;

    public int $timeout = 1800;

    public int $tries = 5;

    public function __construct(public int $import) {}

    /** @return list<object> */
    public function middleware(): array
    {
        return [
            (new WithoutOverlapping(
                'connection '.Import::query()->whereKey($this->import)->value('connection_id'),
            ))
                ->releaseAfter(5)
                ->expireAfter(1800),
        ];
    }

    public function handle(Connectors $connectors, Proof $proof, Dialects $dialects, PlatformFigures $figures): void
    {
        $import = Import::query()->with('link')->findOrFail($this->import);
        $dialect = $dialects->of($import->client_id, $import->link->dialect);
        try {
            $importer = new Importer($connectors->from($import), $import->link, $dialect, $import);
            $accounts = $importer->run();
        } catch (PlatformTrouble $e) {
            $import->update([
                'status' => ImportStatus::Failed,
                'problem' => $e->getMessage(),
                'finished_at' => now(),
            ]);

            return;
        }
        $intake = Intake::query()->where('import_id', $import->id)->first();
        foreach ($accounts as $account) {
            $this->bring($intake, $account, count($dialect->levels) - 1, $figures);
            $import->update([
                'status' => ImportStatus::Proving,
                'step' => mb_substr("{$account->name}: proof", 0, 600),
            ]);
            $proof->refresh($account);
        }
        $import->update([
            'status' => ImportStatus::Done,
            'step' => '',
            'notes' => $importer->notes === [] ? null : implode(' ', $importer->notes),
            'finished_at' => now(),
        ]);
        $intake?->clear();
    }

    /** What the sheets say of ads by day. */
    private function bring(?Intake $intake, Account $account, int $depth, PlatformFigures $figures): void
    {
        if (($intake->counts['figures'] ?? null) === null) {
            return;
        }
        $staged = new StagedFigures($intake);
        foreach ($staged->each($depth, $account->client->currency) as $some) {
            $figures->keep($account, $some, [...$staged->said(), 'currency']);
        }
    }

    public function failed(?\Throwable $e): void
    {
        Import::query()
            ->whereKey($this->import)
            ->whereIn('status', ImportStatus::open())
            ->update([
                'status' => ImportStatus::Failed,
                'finished_at' => now(),
                'problem' => 'The import stopped by a fault of ours. What was there before is still there; import '
                    .'again.',
            ]);
    }
}
