<?php

declare(strict_types=1);

namespace Vestigon\Core\Numbers;

/** A column of a report whose cells say which element a row is about. */
final readonly class NamingColumn
{
    /**
     * @param int $at its place, from 0
     * @param string|null $kind the account and level that all of its cells can be of; null: they are of several
     * @param int $filled cells that say anything
     * @param int $known of them, those by which anything is known
     * @param int $several of these, those by which several elements are known, of what the column can be of
     */
    public function __construct(
        public int $at,
        public By $by,
        public ?string $kind,
        public int $filled,
        public int $known,
        public int $several,
    ) {}

    /**
     * @param array<array-key, list<Named>> $known
     * @param list<string> $filled
     */
    public static function of(int $at, By $by, array $known, array $filled): self
    {
        $kinds = [];
        foreach ($known as $named) {
            foreach (array_unique(array_column($named, 'kind')) as $kind) {
                $kinds[$kind] = ($kinds[$kind] ?? 0) + 1;
            }
        }
        $whole = array_keys(array_filter($kinds, static fn (int $n): bool => $n === count($known)));
        $kind = count($whole) === 1 ? (string) $whole[0] : null;
        $found = array_map(static fn (array $n): int => count(self::among($n, $kind)), $known);

        return new self(
            $at,
            $by,
            $kind,
            count($filled),
            count(array_filter($filled, static fn (string $cell): bool => isset($known[$cell]))),
            count(array_filter($filled, static fn (string $cell): bool => ($found[$cell] ?? 0) > 1)),
        );
    }

    /**
     * @param list<Named> $named
     * @return list<Named> of what the column is about elsewhere, if any; else all
     */
    public function choose(array $named): array
    {
        return self::among($named, $this->kind) ?: $named;
    }

    /**
     * @param list<Named> $named
     * @return list<Named>
     */
    private static function among(array $named, ?string $kind): array
    {
        return $kind === null
            ? $named
            : array_values(array_filter($named, static fn (Named $n): bool => $n->kind === $kind));
    }
}
