<?php

namespace App\Collecting;

use Symfony\Component\HttpFoundation\IpUtils;

/** Who calls: behind a proxy that is trusted, whom it says that it calls for. */
final class Caller
{
    /**
     * @param array<string, mixed> $server as PHP has it
     * @param string $trusted addresses and ranges of proxies, with commas; `*`: whoever calls is one
     */
    public static function address(array $server, string $trusted): string
    {
        $address = (string) ($server['REMOTE_ADDR'] ?? '');
        if ($trusted === '') {
            return $address;
        }
        $proxies = $trusted === '*' ? [$address] : explode(',', $trusted);
        $named = explode(',', (string) ($server['HTTP_X_FORWARDED_FOR'] ?? ''));
        while (IpUtils::checkIp($address, $proxies) && ($before = trim((string) array_pop($named))) !== '') {
            $address = $before;
        }

        return $address;
    }
}
