<?php

namespace App\Mail;

use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;

/** The link by which a person becomes a member of a client. */
final class Invited extends Mailable
{
    public function __construct(
        private readonly string $who,
        private readonly string $client,
        #[\SensitiveParameter] private readonly string $link,
    ) {}

    public function envelope(): Envelope
    {
        return new Envelope(subject: "{$this->client} in Vestigon");
    }

    public function content(): Content
    {
        return new Content(
            text: 'mail.invited',
            with: [
                'who' => $this->who,
                'client' => $this->client,
                'hours' => intdiv(config('limits.invitation'), 60),
                'link' => $this->link,
            ],
        );
    }
}
