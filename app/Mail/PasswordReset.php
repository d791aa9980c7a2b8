<?php

namespace App\Mail;

use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;

/**
 * The link behind which a person chooses another password. What it holds stands behind #, so that no server on the way
 * logs it.
 */
final class PasswordReset extends Mailable
{
    public function __construct(
        private readonly string $person,
        private readonly string $email,
        #[\SensitiveParameter] private readonly string $token,
    ) {}

    public function envelope(): Envelope
    {
        return new Envelope(subject: 'Another password for Vestigon');
    }

    public function content(): Content
    {
        return new Content(
            text: 'mail.password-reset',
            with: [
                'person' => $this->person,
                'minutes' => config('limits.reset_link'),
                'link' => config('app.url')
                    .'/reset#'
                    .http_build_query(
                        ['email' => $this->email, 'token' => $this->token],
                        encoding_type: PHP_QUERY_RFC3986,
                    ),
            ],
        );
    }
}
