<?php

namespace App\Listeners;

use App\Events\Noteworthy;
use App\Models\AuditEntry;
use Illuminate\Contracts\Foundation\Application;

/** Enters in the audit what is noteworthy, with the address that it was asked from. */
final readonly class KeepInAudit
{
    public function __construct(private Application $app) {}

    public function handle(Noteworthy $event): void
    {
        AuditEntry::query()->create([
            'at' => now(),
            'what' => $event->what,
            'user_id' => $event->user,
            'client_id' => $event->client,
            'address' => $this->app->runningInConsole() ? null : $this->app->make('request')->ip(),
            'about' => $event->about,
        ]);
    }
}
