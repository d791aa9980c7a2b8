<?php

namespace App\Console\Commands;

use App\Models\Connection;
use App\Models\Import;
use Illuminate\Console\Command;

final class ImportsBegin extends Command
{
    protected $signature = 'imports:begin';

    protected $description = 'Begins the imports whose time has come';

    public function handle(): void
    {
        foreach (Connection::query()->with('client')->where('next_at', '<=', now())->get() as $connection) {
            // whoever moves the time on begins it: of two schedulers, one
            $isOurs = Connection::query()
                ->whereKey($connection->id)
                ->where('next_at', $connection->getRawOriginal('next_at'))
                ->update(['next_at' => $connection->next(now()->toImmutable())]);
            if ($isOurs === 1) {
                Import::begin($connection, null);
            }
        }
    }
}
