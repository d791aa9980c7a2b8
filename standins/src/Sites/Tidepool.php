<?php

declare(strict_types=1);

namespace Standins\Sites;

use Standins\BadRequest;
use Standins\Crowd\Chance;
use Standins\Crowd\Notebook;
use Standins\Store;

/** A listings platform: it reads a shop's list, lists its items, paid for and not, and people click on some. */
final readonly class Tidepool
{
    private const DAYS = 30;

    public function __construct(private Store $store) {}

    /** @return int how many clicks arrived */
    public function list(string $address, int $clicks, int $seed): int
    {
        preg_match_all('~<item>.*?</item>~s', self::read($address), $items);
        if ($items[0] === []) {
            throw new BadRequest("{$address} has no items", 422);
        }
        $chance = new Chance("listings {$seed}");
        $notes = new Notebook($this->store);
        $arrived = 0;
        for ($i = 0; $i < $clicks; $i++) {
            $column = $chance->happens(0.6) ? 'ad_link' : 'link';
            $item = $chance->oneOf($items[0]);
            if (preg_match("~<{$column}>(.*?)</{$column}>~s", $item, $found) !== 1) {
                continue; // it can't be listed without a link
            }
            $at = (int) (microtime(true) * 1000) - $chance->between(3_600_000, self::DAYS * 86_400_000);
            $url = html_entity_decode($found[1], ENT_XML1 | ENT_QUOTES);
            $who = $chance->word();
            $device = $chance->oneOf(['mobile', 'desktop']);
            $notes->coming($at, $at, $url, 'https://tidepool.example/', 'velmar', $who, $device, null);
            $arrived++;
        }

        return $arrived;
    }

    private static function read(string $address): string
    {
        $curl = curl_init();
        curl_setopt_array($curl, [
            CURLOPT_URL => $address,
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_ENCODING => 'gzip',
            CURLOPT_TIMEOUT => 30,
            CURLOPT_PROTOCOLS => CURLPROTO_HTTP,
        ]);
        $read = curl_exec($curl);
        if (curl_getinfo($curl, CURLINFO_RESPONSE_CODE) !== 200 || ! is_string($read)) {
            throw new BadRequest("{$address} can’t be read", 422);
        }

        return $read;
    }
}
