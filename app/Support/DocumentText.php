<?php

namespace App\Support;

use Symfony\Component\Yaml\Exception\ParseException;
use Symfony\Component\Yaml\Yaml;
use Vestigon\Core\Document\UnusableInput;

/** A document as people write it, JSON or YAML. */
final class DocumentText
{
    private const MOST_VALUES = 20_000;

    private const DEEPEST = 20;

    /**
     * @return array<string, mixed>
     *
     * @throws UnusableInput it is neither, or too large; the message begins with the place, which may be empty
     */
    public static function read(string $text): array
    {
        try {
            $document = str_starts_with(ltrim($text), '{')
                ? json_decode($text, true, 64, JSON_THROW_ON_ERROR)
                : Yaml::parse($text, Yaml::PARSE_EXCEPTION_ON_INVALID_TYPE);
        } catch (\JsonException $e) {
            throw new UnusableInput(": This is not JSON ({$e->getMessage()}).");
        } catch (ParseException $e) {
            $line = $e->getParsedLine();
            $why = trim(preg_replace('/ at line \d+.*/s', '', $e->getMessage()) ?? '', '.');
            throw new UnusableInput(($line > 0 ? "line {$line}" : '').": This is not YAML: {$why}.");
        }
        $left = self::MOST_VALUES;
        if (! is_array($document) || ($document !== [] && array_is_list($document))) {
            throw new UnusableInput(': A document is an object with format, id, title …');
        }

        return self::isSmall($document, $left, self::DEEPEST)
            ? $document
            : throw new UnusableInput(': This is too large or too deep for a document.');
    }

    private static function isSmall(mixed $value, int &$left, int $depth): bool
    {
        if (--$left < 0 || $depth < 0) {
            return false;
        }
        if (is_float($value) && ! is_finite($value)) {
            throw UnusableInput::at('', 'there is a number in it that is none: infinite, or not a number');
        }
        if (is_string($value) && ! mb_check_encoding($value, 'UTF-8')) {
            throw UnusableInput::at('', 'there are bytes in it that are no UTF-8');
        }
        foreach (is_array($value) ? $value : [] as $item) {
            if (! self::isSmall($item, $left, $depth - 1)) {
                return false;
            }
        }

        return true;
    }
}
