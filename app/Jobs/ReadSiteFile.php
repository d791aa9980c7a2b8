<?php

namespace App\Jobs;

use App\Arrivals\EventFile;
use App\Arrivals\EventTables;
use App\Arrivals\Logs;
use App\Models\SiteFile;
use App\Models\SiteFileState;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Vestigon\Core\Document\UnusableInput;

/** Reads a file that somebody has put in for a site; of a sheet that is headed like none before, a person is asked. */
final class ReadSiteFile implements ShouldQueue
{
    use Queueable;

    public int $timeout = 3600;

    public int $tries = 2; // what was read is known: the same lines are the same views

    public function __construct(public int $file) {}

    public function handle(EventTables $tables, EventFile $events): void
    {
        $file = SiteFile::query()->with('collector.client')->find($this->file);
        if ($file?->state !== SiteFileState::Waiting) {
            return;
        }
        try {
            if ($file->kind === 'log') {
                Logs::of($file)->read();
            } elseif ($file->map !== null || $tables->look($file)) {
                $events->read($file);
            } else {
                $file->update(['state' => SiteFileState::Asked]);

                return;
            }
        } catch (UnusableInput $e) {
            $file->update(['state' => SiteFileState::Failed, 'problem' => "{$e->getMessage()}."]);
        }
        $file->letGo();
    }

    public function failed(): void
    {
        $file = SiteFile::query()->where('state', SiteFileState::Waiting)->find($this->file);
        $file?->update([
            'state' => SiteFileState::Failed,
            'problem' => 'Reading it stopped by a fault of ours. Put it in again.',
        ]);
        $file?->letGo();
    }
}
