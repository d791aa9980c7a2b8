<?php

namespace App\Jobs;

use App\Meant\Reader;
use App\Models\Reading;
use App\Models\ReadingStatus;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Reads days of a client as they were meant. */
final class ReadAsMeant implements ShouldQueue
{
    use Queueable;

    public int $timeout = 1800;

    public int $tries = 1; // a person begins it again

    public function __construct(public int $reading) {}

    public function handle(Reader $reader): void
    {
        $reading = Reading::query()->with('client')->find($this->reading);
        if ($reading === null || $reading->status !== ReadingStatus::Queued) {
            return;
        }
        $reading->update(['status' => ReadingStatus::Running]);
        $reader->read($reading);
        $reading->update(['status' => ReadingStatus::Done]);
    }

    public function failed(?\Throwable $e): void
    {
        Reading::query()->whereKey($this->reading)->update([
            'status' => ReadingStatus::Failed,
            'problem' => 'It broke off. Begin it again; if it breaks off again, tell whoever runs this installation.',
        ]);
    }
}
