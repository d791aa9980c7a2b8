<?php

declare(strict_types=1);

namespace Standins\Sites;

use Standins\Store;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * A mailbox for everybody in this small world: POST /messages takes a message (RFC 5322), GET /messages and GET / show
 * them, the latest first.
 */
final readonly class Mailbox
{
    private const SHOWN = 50;

    public function __construct(private Store $store) {}

    public function handle(Request $request): Response
    {
        if ($request->getMethod() === 'POST') {
            $this->store->run('insert into mails (at, source) values (?, ?)', [
                date(DATE_ATOM),
                $request->getContent(),
            ]);

            return new Response('', 201);
        }
        $mails = array_map(
            self::read(...),
            $this->store->rows('select at, source from mails order by id desc limit '.self::SHOWN),
        );
        if ($request->getPathInfo() === '/messages') {
            return new JsonResponse(['items' => $mails]);
        }
        $shown = array_map(static function (array $m): string {
            [$to, $subject, $text] = array_map(static fn (string $t): string => htmlspecialchars($t, ENT_QUOTES), [
                $m['to'],
                $m['subject'],
                $m['text'],
            ]);
            $text = preg_replace('~https?://[^\s<]+~', '<a href="$0">$0</a>', $text);

            return "<article><h2>{$subject}</h2><p>to {$to}, {$m['at']}</p><pre>{$text}</pre></article>";
        }, $mails);

        return new Response(
            '<!doctype html><html lang="en"><meta charset="utf-8"><title>Mailbox</title><style>body{font:16px/1.5 '
                .'system-ui,sans-serif;max-width:46rem;margin:2rem '
                .'auto}pre{white-space:pre-wrap}article{border-top:1px solid #bbb}</style><h1>What was sent</h1>'
                .(implode('', $shown) ?: '<p>Nothing yet.</p>'),
        );
    }

    /**
     * @param array<string, mixed> $row
     * @return array{at: string, to: string, subject: string, text: string}
     */
    private static function read(array $row): array
    {
        [$head, $body] = explode("\r\n\r\n", (string) $row['source'], 2) + [1 => ''];
        $header = static fn (string $name): string => preg_match("/^{$name}: (.*)$/mi", $head, $found) === 1
            ? iconv_mime_decode(trim($found[1]), ICONV_MIME_DECODE_CONTINUE_ON_ERROR, 'UTF-8')
            : '';

        return [
            'at' => (string) $row['at'],
            'to' => $header('To'),
            'subject' => $header('Subject'),
            'text' => strcasecmp($header('Content-Transfer-Encoding'), 'quoted-printable') === 0
                    ? quoted_printable_decode($body)
                    : $body,
        ];
    }
}
