<?php

namespace App\SignIn;

use App\Models\User;
use Illuminate\Support\Facades\DB;

/**
 * A person's second factor: a shared secret, whose codes count once each, and words that stand in for a code, once
 * each.
 */
final readonly class SecondFactor
{
    private const WORDS = 8;

    /** Letters and digits that are not taken for one another. */
    private const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';

    public function __construct(private User $user) {}

    /**
     * @param string $secret its bytes
     * @return list<string> the recovery words: they are shown this once
     */
    public function turnOn(string $secret): array
    {
        $words = array_map(static fn (): string => self::word(), range(1, self::WORDS));
        $this->user
            ->forceFill([
                'second_factor' => base64_encode($secret),
                'second_factor_step' => null,
                'recovery' => array_map(self::digest(...), $words),
            ])
            ->save();

        return $words;
    }

    public function turnOff(): void
    {
        $this->user
            ->forceFill(['second_factor' => null, 'second_factor_step' => null, 'recovery' => null])
            ->save();
    }

    /** Is it a code of now that has not been used, or a recovery word that has not? Either is used up by it. */
    public function takes(string $typed): bool
    {
        return DB::transaction(function () use ($typed): bool {
            $user = User::query()->whereKey($this->user->id)->lockForUpdate()->firstOrFail();
            $secret = base64_decode((string) $user->second_factor, true);
            if ($secret === false || $secret === '') {
                return false;
            }
            $step = (new Totp($secret))->stepOf($typed, (int) now()->timestamp);
            if ($step !== null && $step > ($user->second_factor_step ?? -1)) {
                $user->forceFill(['second_factor_step' => $step])->save();

                return true;
            }

            return self::takesWord($user, $typed);
        }, 5);
    }

    private static function takesWord(User $user, string $typed): bool
    {
        $digest = self::digest($typed);
        $left = array_values(
            array_filter($user->recovery ?? [], static fn (string $d): bool => ! hash_equals($d, $digest)),
        );
        if (count($left) === count($user->recovery ?? [])) {
            return false;
        }
        $user->forceFill(['recovery' => $left])->save();

        return true;
    }

    private static function word(): string
    {
        $letters = array_map(
            static fn (): string => self::LETTERS[random_int(0, strlen(self::LETTERS) - 1)],
            range(1, 12),
        );

        return implode('-', array_map(implode(...), array_chunk($letters, 4)));
    }

    /** A word has 59 bits of its own: a plain digest is enough. */
    private static function digest(string $word): string
    {
        return hash('sha256', mb_strtolower((string) preg_replace('/[^\p{L}\p{N}]+/u', '', $word)));
    }
}
