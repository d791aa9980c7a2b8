<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

/**
 * How a value looks, as far as it matters for a text that only passes it on.
 *
 * Texts encode values and pages decode them, so for most texts it does not matter which value it is: values of one form
 * can stand for each other.
 */
enum ValueForm: string
{
    case None = '0';
    /** Neither encoding nor shaping changes it. */
    case Plain = 'p';
    /** Any other text. */
    case Text = 't';
    /** No UTF-8: what arrives is mended. */
    case Bytes = 'b';

    public const PLAIN = 'abcdefghijklmnopqrstuvwxyz0123456789.-';

    /** The commonest of the plain ones, told the fastest. */
    public static function isPlainWord(string $value): bool
    {
        return $value !== '' && strspn($value, self::PLAIN) === strlen($value);
    }

    public static function of(string $value): self
    {
        return match (true) {
            $value === '' => self::None,
            self::isPlainWord($value) => self::Plain,
            preg_match('/^[a-z0-9.\-]+(?:_[a-z0-9.\-]+)*$/D', $value) === 1 => self::Plain,
            mb_check_encoding($value, 'UTF-8') => self::Text,
            default => self::Bytes,
        };
    }
}
