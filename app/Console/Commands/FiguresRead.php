<?php

namespace App\Console\Commands;

use App\Models\Account;
use App\Watching\PlatformFigures;
use Illuminate\Console\Command;

final class FiguresRead extends Command
{
    protected $signature = 'figures:read {--minutes=0 : only accounts of which nobody has asked for so long}';

    protected $description = 'Reads what platforms say of each ad and day';

    public function handle(PlatformFigures $figures): void
    {
        $accounts = Account::query()
            ->with(['client', 'link'])
            ->whereNotNull('imported_at')
            ->where(
                fn ($of) => $of
                    ->whereNull('figures_at')
                    ->orWhere('figures_at', '<=', now()->subMinutes((int) $this->option('minutes'))),
            );
        foreach ($accounts->lazyById() as $account) {
            $figures->read($account);
        }
    }
}
