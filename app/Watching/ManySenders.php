<?php

namespace App\Watching;

use App\Links\Origins;
use App\Models\Account;
use App\Models\Client;
use App\Sheets\Files\Form;
use App\Sheets\Files\Writing;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Decode\Decoder;
use Vestigon\Core\Decode\Mold;

/** Many URLs read back at once: each with the ad that can have sent it, and how many can. */
final readonly class ManySenders
{
    /** Of a large account ads of so many pages are looked at. */
    private const PAGES = 300;

    public function __construct(private Senders $senders) {}

    /**
     * @param list<string> $urls lines, be they URLs or not
     * @return list<array{url: string, isUrl: bool, ways: int, sender: array<string, mixed>|null, link: array{id: int,
     *     title: string, short: string|null}|null}> in their order
     */
    public function of(Client $client, array $urls): array
    {
        $told = [];
        $asked = array_values(array_unique(array_filter($urls, self::isUrl(...))));
        foreach ($this->decoders($client, $asked) as [$account, $decoder, $core, $some]) {
            foreach ($some as $url) {
                foreach ($decoder->fits($url) as $fit) {
                    $told[$url]['sender'] ??= Senders::told($account, $core, $fit);
                    $told[$url]['ways'] = ($told[$url]['ways'] ?? 0) + 1;
                }
            }
        }
        $links = Origins::linksOf($client, $asked);

        return array_map(
            static fn (string $url): array => [
                'url' => $url,
                'isUrl' => self::isUrl($url),
                'ways' => $told[$url]['ways'] ?? 0,
                'sender' => $told[$url]['sender'] ?? null,
                'link' => $links[$url] ?? null,
            ],
            $urls,
        );
    }

    /**
     * @param list<string> $urls
     * @return array{path: string, name: string, type: string} the same as a sheet
     */
    public function sheet(Client $client, array $urls, string $kind): array
    {
        $items = $this->of($client, $urls);

        return Writing::files(
            [
                'urls' => [
                    [
                        'title' => 'urls',
                        'form' => new Form($kind),
                        'rows' => static fn (): iterable => self::rows($items),
                    ],
                ],
            ],
            "urls {$client->slug} ".now($client->time_zone)->toDateString(),
        );
    }

    /**
     * @param list<array<string, mixed>> $items
     * @return iterable<list<mixed>>
     */
    private static function rows(array $items): iterable
    {
        $fields = [];
        foreach ($items as $item) {
            $fields += array_fill_keys(array_keys((array) ($item['sender']['values'] ?? [])), '');
        }
        yield ['URL', 'can be of', 'platform', 'number', 'path', 'since', 'until', 'link', ...array_keys($fields)];
        foreach ($items as ['url' => $url, 'isUrl' => $isUrl, 'ways' => $ways, 'sender' => $s, 'link' => $link]) {
            yield [
                $url,
                match (true) {
                    ! $isUrl => 'no web address',
                    $ways > 1 => "{$ways} ads",
                    $ways === 1 => 'one ad',
                    default => $link === null ? 'none that is known' : 'a link',
                },
                $s['platform'] ?? '',
                $s['externalId'] ?? '',
                implode(' › ', $s['path'] ?? []),
                $s['since'] ?? '',
                $s['until'] ?? '',
                $link['title'] ?? '',
                ...array_values(array_merge($fields, (array) ($s['values'] ?? []))),
            ];
        }
    }

    /**
     * @param list<string> $urls
     * @return iterable<array{Account, Decoder, CoreAccount, list<string>}>
     */
    private function decoders(Client $client, array $urls): iterable
    {
        $byPage = [];
        foreach ($urls as $url) {
            $byPage[Mold::addressOf($url)][] = $url;
        }
        foreach ($client->accounts()->orderBy('name')->get() as $account) {
            $isWhole = Senders::isLookedAtWhole($account);
            foreach ($isWhole ? [$urls] : array_slice($byPage, 0, self::PAGES) as $some) {
                if ($some !== []) {
                    [$decoder, $core] = $this->senders->decoder($account, $some[0]);
                    yield [$account, $decoder, $core, $some];
                }
            }
        }
    }

    private static function isUrl(string $line): bool
    {
        return preg_match('~^https?://[^\s/]~i', $line) === 1;
    }
}
