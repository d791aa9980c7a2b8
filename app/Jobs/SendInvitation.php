<?php

namespace App\Jobs;

use App\Mail\Invited;
use App\Models\Invitation;
use Illuminate\Contracts\Queue\ShouldBeEncrypted;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\Mail;

/** Sends a link to the person whom it is for. */
final class SendInvitation implements ShouldBeEncrypted, ShouldQueue
{
    use Queueable;

    public int $timeout = 60;

    public int $tries = 3;

    public function __construct(public int $invitation, public string $link) {}

    public function handle(): void
    {
        $invitation = Invitation::query()->open()->with('client', 'by')->find($this->invitation);
        if ($invitation?->client !== null && $invitation->email !== null) {
            Mail::to($invitation->email)->send(
                new Invited($invitation->by->name ?? 'Somebody', $invitation->client->name, $this->link),
            );
        }
    }
}
