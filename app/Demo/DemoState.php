<?php

namespace App\Demo;

use App\Models\Import;
use App\Models\ImportStatus;
use Illuminate\Console\Command;

final class DemoState extends Command
{
    protected $signature = 'demo:state';

    protected $description = 'Says "ready" once the first import has ended';

    public function handle(): void
    {
        $this->line(
            Import::query()->whereIn('status', ImportStatus::open())->exists() || ! Import::query()->exists()
                ? 'waiting'
                : 'ready',
        );
    }
}
