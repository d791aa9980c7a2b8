<?php

namespace App\Console\Commands;

use App\Arrivals\Matching;
use App\Arrivals\Reader;
use App\Models\Collector;
use App\Watching\Gathering;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\Cache;

final class ArrivalsRead extends Command
{
    protected $signature = 'arrivals:read {--all : as long as there is more}';

    protected $description = 'Reads what has arrived since, and puts it together to sessions';

    public function handle(Reader $reader, Matching $matching, Gathering $gathering): void
    {
        $lock = Cache::lock('what arrives is read', 900);
        if (! $this->option('all') && ! $lock->get()) {
            return; // somebody does
        }
        $this->option('all') && $lock->block(30);
        try {
            $this->read($reader, $matching, $gathering);
        } finally {
            $lock->release();
        }
    }

    private function read(Reader $reader, Matching $matching, Gathering $gathering): void
    {
        do {
            $came = 0;
            foreach (Collector::query()->with('client')->lazyById() as $collector) {
                $came += $matching->pending($collector);
                $came += $collector->isOurs() ? 0 : $reader->read($collector);
            }
        } while ($this->option('all') && $came > 0);
        do {
            $more = $gathering->some();
        } while ($this->option('all') && $more > 0);
    }
}
