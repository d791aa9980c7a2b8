<?php

namespace App\Console\Commands;

use App\Arrivals\Matching;
use App\Arrivals\Reader;
use App\Models\Collector;
use Illuminate\Console\Command;

final class ArrivalsRead extends Command
{
    protected $signature = 'arrivals:read';

    protected $description = 'Reads what has arrived since';

    public function handle(Reader $reader, Matching $matching): void
    {
        foreach (Collector::query()->with('client')->lazyById() as $collector) {
            $collector->isOurs() ? $matching->pending($collector) : $reader->read($collector);
        }
    }
}
