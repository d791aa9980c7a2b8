<?php

namespace App\Links;

use App\Models\Client;
use App\Models\Link;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Severity;

/** The words of short addresses: drawn, or chosen. */
final class Codes
{
    /** Nothing that looks like something else, and of vowels only a, e, u: words that nobody wants are not spelt. */
    private const LETTERS = '23456789abcdefghjkmnpqrstuvwxyz';

    private const LENGTH = 7;

    public static function draw(): string
    {
        $code = '';
        for ($i = 0; $i < self::LENGTH; $i++) {
            $code .= self::LETTERS[random_int(0, strlen(self::LETTERS) - 1)];
        }

        return $code;
    }

    /**
     * @param list<Wanted> $wanted
     * @return array<string, int> host and code → the link that has it, gone ones too
     */
    public static function taken(array $wanted): array
    {
        $taken = [];
        $codes = array_filter(array_map(static fn (Wanted $w): string => (string) $w->code, $wanted), strlen(...));
        foreach (array_chunk(array_unique($codes), 1000) as $some) {
            foreach (Link::withTrashed()->whereIn('code', $some)->get(['id', 'host', 'code']) as $link) {
                $taken["{$link->host} {$link->code}"] = $link->id;
            }
        }

        return $taken;
    }

    /**
     * @param array<string, int> $taken
     * @return list<Finding>
     */
    public static function findings(Client $client, Wanted $wanted, array $taken, ?int $self = null): array
    {
        $code = (string) $wanted->code;
        $has = $taken["{$wanted->host} {$code}"] ?? $self;
        $why = match (true) {
            $wanted->host !== '' && ! $client->shortHosts()->where('host', $wanted->host)->exists() => [
                'no-short-host',
                "{$wanted->host} is no host of this client’s short addresses.",
            ],
            $code === '' => null,
            preg_match('/^[a-z0-9-]{3,40}$/D', $code) !== 1 => [
                'no-code',
                'The word of a short address has 3 to 40 letters a to z, digits and hyphens.',
            ],
            $has !== $self => ['code-taken', "/s/{$code} leads elsewhere already. Choose another word."],
            default => null,
        };

        return $why === null ? [] : [new Finding($why[0], Severity::Error, $why[1], key: 'code')];
    }
}
