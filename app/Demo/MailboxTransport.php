<?php

namespace App\Demo;

use Illuminate\Support\Facades\Http;
use Symfony\Component\Mailer\SentMessage;
use Symfony\Component\Mailer\Transport\AbstractTransport;

/** Hands mail to the demo's mailbox stand-in, which shows what was sent. */
final class MailboxTransport extends AbstractTransport
{
    public function __construct(private readonly string $address)
    {
        parent::__construct();
    }

    protected function doSend(SentMessage $message): void
    {
        Http::timeout(5)
            ->withBody($message->toString(), 'message/rfc822')
            ->post("{$this->address}/messages")
            ->throw();
    }

    public function __toString(): string
    {
        return 'mailbox';
    }
}
