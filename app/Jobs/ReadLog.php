<?php

namespace App\Jobs;

use App\Arrivals\Logs;
use App\Arrivals\Orders;
use App\Models\LogFile;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\File;
use Vestigon\Core\Document\UnusableInput;

/** Reads a file that somebody has put in for a site: a web server's log, or a sheet of orders. */
final class ReadLog implements ShouldQueue
{
    use Queueable;

    public int $timeout = 3600;

    public int $tries = 2; // what was read is known: the same lines are the same views

    public function __construct(public int $file) {}

    public function handle(Orders $orders): void
    {
        $file = LogFile::query()->with('collector.client')->find($this->file);
        if ($file?->state !== 'waiting') {
            return;
        }
        try {
            $file->kind === 'log' ? Logs::of($file)->read() : $orders->read($file);
        } catch (UnusableInput $e) {
            $file->update(['state' => 'failed', 'problem' => "{$e->getMessage()}."]);
        }
        File::delete(File::glob("{$file->path()}*"));
    }

    public function failed(): void
    {
        LogFile::query()
            ->where(['id' => $this->file, 'state' => 'waiting'])
            ->update(['state' => 'failed', 'problem' => 'Reading it stopped by a fault of ours. Put it in again.']);
    }
}
