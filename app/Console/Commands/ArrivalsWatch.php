<?php

namespace App\Console\Commands;

use App\Arrivals\Reader;
use App\Models\Collector;
use Illuminate\Console\Command;

final class ArrivalsWatch extends Command
{
    protected $signature = 'arrivals:watch {--once : read once, then end}';

    protected $description = 'Reads arrivals as they come';

    private const PAUSE_MS = 700;

    public function handle(Reader $reader): void
    {
        $until = now()->addMinutes(30);
        do {
            foreach (Collector::query()->with('client')->get() as $collector) {
                $reader->read($collector);
            }
            if (! $this->option('once')) {
                usleep(self::PAUSE_MS * 1000);
            }
        } while (! $this->option('once') && now()->lessThan($until));
    }
}
