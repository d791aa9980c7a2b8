<?php

namespace App\Console\Commands;

use App\Models\Import;
use Illuminate\Console\Command;

final class DemoState extends Command
{
    protected $signature = 'demo:state';

    protected $description = 'Says "ready" once the first import has ended';

    public function handle(): void
    {
        $this->line(
            Import::query()->whereIn('status', Import::OPEN)->exists() || ! Import::query()->exists()
                ? 'waiting'
                : 'ready',
        );
    }
}
