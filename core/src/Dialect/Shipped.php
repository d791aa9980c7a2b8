<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

use Vestigon\Core\Document\Cursor;

/** The dialects that come with the product, as files beside the code. */
final class Shipped
{
    /** @return list<string> */
    public static function ids(): array
    {
        return array_map(
            static fn (string $file): string => basename($file, '.json'),
            glob(self::folder().'/*.json') ?: [],
        );
    }

    /** @return array<string, Dialect> all of them, by id */
    public static function all(): array
    {
        $all = [];
        foreach (self::ids() as $id) {
            $all[$id] = self::dialect($id) ?? throw new \LogicException("{$id} is among the shipped ones");
        }

        return $all;
    }

    public static function dialect(string $id): ?Dialect
    {
        if (! in_array($id, self::ids(), true)) {
            return null;
        }

        return DialectReader::read(Cursor::json((string) file_get_contents(self::file($id)), "dialect {$id}"));
    }

    /** Where the document of a shipped dialect is. */
    public static function file(string $id): string
    {
        return self::folder()."/{$id}.json";
    }

    private static function folder(): string
    {
        return dirname(__DIR__, 2).'/dialects';
    }
}
