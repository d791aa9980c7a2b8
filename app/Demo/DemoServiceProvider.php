<?php

namespace App\Demo;

use Illuminate\Support\Facades\Mail;
use Illuminate\Support\ServiceProvider;

/** Puts the stand-ins in the place of all outside services. Registered only where VESTIGON_DEMO says so. */
final class DemoServiceProvider extends ServiceProvider
{
    public static function isWanted(): bool
    {
        return getenv('VESTIGON_DEMO') === '1';
    }

    public function register(): void
    {
        $demo = config('demo');
        config([
            'platforms.ads' => $demo['ads'],
            'platforms.tallyroom' => $demo['tallyroom'],
            'platforms.trackers' => $demo['hopgate'],
            'platforms.near' => $demo['near'],
            'mail.mailers.mailbox' => $demo['mailbox'],
            'mail.default' => $demo['mailer'],
        ]);
    }

    public function boot(): void
    {
        Mail::extend(
            'mailbox',
            static fn (array $config): MailboxTransport => new MailboxTransport($config['address']),
        );
        $this->commands([DemoLoad::class, DemoPast::class, DemoState::class]);
    }
}
