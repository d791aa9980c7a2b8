<?php

namespace App\Jobs;

use App\Arrivals\Logs;
use App\Models\LogFile;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\File;

/** Reads a web server's log that somebody has put in. */
final class ReadLog implements ShouldQueue
{
    use Queueable;

    public int $timeout = 3600;

    public int $tries = 2; // what was read is known: the same lines are the same views

    public function __construct(public int $file) {}

    public function handle(): void
    {
        $file = LogFile::query()->with('collector.client')->find($this->file);
        if ($file?->state === 'waiting') {
            Logs::of($file)->read();
            File::delete($file->path());
        }
    }

    public function failed(): void
    {
        LogFile::query()
            ->where(['id' => $this->file, 'state' => 'waiting'])
            ->update(['state' => 'failed', 'problem' => 'Reading it stopped by a fault of ours. Put it in again.']);
    }
}
