<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

/** Parts as a line that people type: fixed text as it stands, a field in angle quotes, `‹campaign.name›-2027`. */
final class PartText
{
    private const FIELD = '/([‹<][a-z]+\.[A-Za-z0-9._-]+[›>])/u';

    /** @param list<Part> $parts */
    public static function of(array $parts): string
    {
        return implode(
            '',
            array_map(static fn (Part $p): string => $p->field === null ? (string) $p->text : "‹{$p->field}›", $parts),
        );
    }

    /**
     * As in a plan document; `<` and `>` do as well. An angle without its partner is text.
     *
     * @return list<array{text: string}|array{field: string}>
     */
    public static function read(string $line): array
    {
        $parts = [];
        foreach (preg_split(self::FIELD, $line, -1, PREG_SPLIT_DELIM_CAPTURE) ?: [] as $i => $piece) {
            if ($i % 2 === 1) {
                $parts[] = ['field' => (string) preg_replace('/[<>‹›]/u', '', $piece)];
            } elseif ($piece !== '') {
                $parts[] = ['text' => $piece];
            }
        }

        return $parts === [] ? [['text' => '']] : $parts;
    }
}
