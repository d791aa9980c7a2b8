<?php

namespace App\Console\Commands;

use App\Links\Opened;
use Illuminate\Console\Command;

final class LinksCount extends Command
{
    protected $signature = 'links:count';

    protected $description = 'Counts how often short addresses were opened';

    public function handle(Opened $opened): void
    {
        $opened->count();
    }
}
