<?php

namespace App\Jobs;

use App\Accounts\Importer;
use App\Accounts\Proof;
use App\Connectors\Connectors;
use App\Connectors\PlatformTrouble;
use App\Dialects\Dialects;
use App\Models\Import;
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

    public function handle(Connectors $connectors): void
    {
        $import = Import::query()->with('link')->findOrFail($this->import);
        $dialect =
            app(Dialects::class)->shipped($import->link->dialect)
            ?? throw new \RuntimeException("the dialect {$import->link->dialect} is not shipped");
        try {
            $importer = new Importer($connectors->for($dialect->id), $import->link, $dialect, $import);
            $accounts = $importer->run();
        } catch (PlatformTrouble $e) {
            $import->update(['status' => 'failed', 'problem' => $e->getMessage(), 'finished_at' => now()]);

            return;
        }
        foreach ($accounts as $account) {
            $import->update(['status' => 'proving', 'step' => mb_substr("{$account->name}: proof", 0, 600)]);
            Proof::refresh($account);
        }
        $import->update([
            'status' => 'done',
            'step' => '',
            'notes' => $importer->notes === [] ? null : implode(' ', $importer->notes),
            'finished_at' => now(),
        ]);
    }

    public function failed(?\Throwable $e): void
    {
        Import::query()
            ->whereKey($this->import)
            ->whereIn('status', Import::OPEN)
            ->update([
                'status' => 'failed',
                'finished_at' => now(),
                'problem' => 'The import stopped by a fault of ours. What was there before is still there; import '
                    .'again.',
            ]);
    }
}
