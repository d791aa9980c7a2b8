<?php

namespace App\SignIn;

/**
 * One-time codes that change with time: RFC 6238 (30 seconds, SHA-1, six digits unless said otherwise) over RFC 4226.
 */
final readonly class Totp
{
    private const SECONDS = 30;

    private const BASE32 = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'; // RFC 4648 §6

    /** @param string $secret its bytes */
    public function __construct(private string $secret, private int $digits = 6, private string $hash = 'sha1') {}

    public static function newSecret(): string
    {
        return random_bytes(20); // RFC 4226 §4: 160 bits are recommended
    }

    public static function step(int $seconds): int
    {
        return intdiv($seconds, self::SECONDS);
    }

    /** The code of a time step (RFC 4226 §5.3: dynamic truncation). */
    public function code(int $step): string
    {
        $hmac = hash_hmac($this->hash, pack('J', $step), $this->secret, true);
        $from = ord($hmac[-1]) & 0x0F;
        $number =
            (((ord($hmac[$from]) & 0x7F) << 24)
                | (ord($hmac[$from + 1]) << 16)
                | (ord($hmac[$from + 2]) << 8)
                | ord($hmac[$from + 3]))
            % 10 ** $this->digits;

        return str_pad((string) $number, $this->digits, '0', STR_PAD_LEFT);
    }

    /**
     * The step that a typed code belongs to: now, or one before or after, for clocks that differ (RFC 6238 §5.2, §6).
     *
     * @return int|null null: to none
     */
    public function stepOf(string $typed, int $seconds): ?int
    {
        $typed = (string) preg_replace('/\s+/', '', $typed);
        $now = self::step($seconds);
        $found = null;
        foreach ([$now, $now - 1, $now + 1] as $step) {
            if (hash_equals($this->code($step), $typed)) {
                $found ??= $step;
            }
        }

        return $found;
    }

    /** For an authenticator, as the QR code says it. */
    public function address(string $account): string
    {
        return 'otpauth://totp/Vestigon:'
            .rawurlencode($account)
            .'?secret='
            .$this->base32()
            .'&issuer=Vestigon';
    }

    public function base32(): string
    {
        $bits = implode(
            '',
            array_map(
                static fn (string $c): string => str_pad(decbin(ord($c)), 8, '0', STR_PAD_LEFT),
                str_split($this->secret),
            ),
        );

        return implode(
            '',
            array_map(
                static fn (string $five): string => self::BASE32[(int) bindec(str_pad($five, 5, '0'))],
                str_split($bits, 5),
            ),
        );
    }
}
