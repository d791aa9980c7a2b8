<?php

namespace App\Sheets\Files;

/** Windows-1252 as browsers read it (WHATWG Encoding Standard, index-windows-1252): every byte is a letter. */
final class Windows1252
{
    /** @var array<string, string>|null */
    private static ?array $letters = null;

    public static function utf8(string $bytes): string
    {
        return strtr($bytes, self::$letters ??= self::letters());
    }

    /** @return array<string, string> byte → letter, from 0x80 on */
    private static function letters(): array
    {
        $letters = [];
        for ($byte = 0x80; $byte <= 0xFF; $byte++) {
            // what Windows-1252 leaves open is a control character of the same number
            $letter = in_array($byte, [0x81, 0x8D, 0x8F, 0x90, 0x9D], true)
                ? mb_chr($byte, 'UTF-8')
                : mb_convert_encoding(chr($byte), 'UTF-8', 'Windows-1252');
            $letters[chr($byte)] = (string) $letter;
        }

        return $letters;
    }
}
