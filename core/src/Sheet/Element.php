<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/**
 * All that was said of one element so far, by rows of its own and by rows of what stands below it. What is said next
 * makes another one: elements can be kept anywhere between two rows.
 */
final readonly class Element
{
    /**
     * @param Facts|null $facts what its own rows say; null: it was only mentioned
     * @param string $mentioned the first name that others gave it
     * @param string|null $type the last type that others gave it
     * @param array{int, string}|null $parent depth and key of what it stands under; null: the account
     * @param array{int, int} $first table and row that named it first
     * @param list<array{int, int}> $rows its own, where only its name says who it is
     * @param list<array{string, string}> $keywords text and match
     * @param bool $isAmbiguous do different things have its name?
     */
    private function __construct(
        public Step $step,
        public ?Facts $facts,
        public string $mentioned,
        public ?string $type,
        public ?array $parent,
        public array $first,
        public array $rows = [],
        public array $keywords = [],
        public bool $isAmbiguous = false,
    ) {}

    /** @param array{int, string}|null $parent what it is known to stand under */
    public static function first(Step $step, int $table, int $row, ?array $parent = null): self
    {
        return new self($step, null, '', null, $parent, [$table, $row]);
    }

    /**
     * One that is known from before.
     *
     * @param array{int, string}|null $parent
     * @param list<array{string, string}> $keywords
     */
    public static function known(Step $step, Facts $facts, ?array $parent, array $keywords): self
    {
        return new self($step, $facts, '', null, $parent, [0, 0], keywords: $keywords);
    }

    /**
     * One that was put away by toArray().
     *
     * @param array{
     *     array{string, int, string, bool, string, string|null},
     *     array{
     *         string, string|null, string|null, string|null, array<string, string>, array<string, string>, bool,
     *         array<string, string>, array<string, string>
     *     }|null,
     *     string, string|null, array{int, string}|null, array{int, int}, list<array{int, int}>,
     *     list<array{string, string}>, bool
     * } $kept
     */
    public static function of(array $kept): self
    {
        [$step, $facts, $mentioned, $type, $parent, $first, $rows, $keywords, $isAmbiguous] = $kept;

        return new self(
            new Step(...$step),
            $facts === null ? null : new Facts(...array_replace($facts, [2 => Serving::tryFrom($facts[2] ?? '')])),
            $mentioned,
            $type,
            $parent,
            $first,
            $rows,
            $keywords,
            $isAmbiguous,
        );
    }

    /** @return list<mixed> all of it, in values that JSON has, by their places: there may be millions */
    public function toArray(): array
    {
        return [
            array_values(get_object_vars($this->step)),
            $this->facts === null ? null : array_values(get_object_vars($this->facts)),
            $this->mentioned,
            $this->type,
            $this->parent,
            $this->first,
            $this->rows,
            $this->keywords,
            $this->isAmbiguous,
        ];
    }

    public function name(): string
    {
        return ($this->facts->name ?? '') === '' ? $this->mentioned : (string) $this->facts?->name;
    }

    public function type(): ?string
    {
        return $this->facts->type ?? $this->type;
    }

    /** A row of something below it names it. */
    public function mentionedAs(Step $step): self
    {
        $mentioned = $this->mentioned === '' ? $step->name : $this->mentioned;
        $type = $step->type ?? $this->type;

        return $mentioned === $this->mentioned && $type === $this->type
            ? $this
            : $this->with(mentioned: $mentioned, type: $type);
    }

    /**
     * A row of its own.
     *
     * @return array{self, list<Problem>}
     */
    public function saidBy(Said $said): array
    {
        $differs = $this->facts?->differsFrom($said->facts) ?? false;
        $next = $this->with(
            facts: $this->facts?->and($said->facts) ?? $said->facts,
            rows: $this->step->isByName ? [...$this->rows, [$said->table, $said->row]] : [],
            isAmbiguous: $this->isAmbiguous || ($differs && $this->step->isByName),
        );
        $problems = match (true) {
            $next->isAmbiguous => array_map(
                static fn (array $at): Problem => Problem::namedAlike($at[0], $at[1], $said->own()),
                $this->isAmbiguous ? [[$said->table, $said->row]] : $next->rows,
            ),
            $differs => [Problem::saidTwice($said->table, $said->row, $this->step)],
            default => [],
        };

        return [$next, $problems];
    }

    /**
     * A row tells what it stands under. A narrower one completes a wider one; another of the same level takes its
     * place.
     *
     * @param Step $parent wider than it; the account itself need not be said
     * @return array{self, list<Problem>}
     */
    public function under(Step $parent, int $table, int $row): array
    {
        [$depth, $key] = $this->parent ?? [0, ''];
        if ($parent->depth < $depth || $parent->key() === $key || $parent->depth === 0) {
            return [$this, []];
        }

        return [
            $this->with(parent: [$parent->depth, $parent->key()]),
            $this->parent !== null && $depth === $parent->depth
                ? [Problem::moved($table, $row, $this->step, $parent)]
                : [],
        ];
    }

    /** @param array{string, string} $keyword text and match */
    public function withKeyword(array $keyword): self
    {
        return in_array($keyword, $this->keywords, true)
            ? $this
            : $this->with(keywords: [...$this->keywords, $keyword]);
    }

    /** What is known of it, with what is said of it now. */
    public function overlaid(self $said): self
    {
        return $this->with(
            facts: ($this->facts ?? new Facts())->overlaid(
                $said->facts ?? new Facts(),
                $said->name(),
                $said->type(),
            ),
            parent: $said->parent ?? $this->parent,
            keywords: $said->keywords === [] ? $this->keywords : $said->keywords,
        );
    }

    /** Without what its rows say, where they are of different things of one name. */
    public function settled(): self
    {
        return $this->isAmbiguous
            ? new self($this->step, null, $this->mentioned, $this->type, $this->parent, $this->first)
            : $this;
    }

    /** Is it known of by nothing but rows that are left out? */
    public function isLeftOut(): bool
    {
        return $this->isAmbiguous && $this->mentioned === '';
    }

    /** Of all that is said of it: of two with the same, the same is said. */
    public function digest(): string
    {
        $said = [$this->name(), $this->type(), $this->parent, $this->keywords, $this->facts];

        return md5(json_encode($said, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE), true);
    }

    public function isAs(self $other): bool
    {
        return $this->written('') == $other->written('')
            && ($this->facts->settings ?? []) == ($other->facts->settings ?? [])
            && $this->parent === $other->parent;
    }

    public function isGone(): bool
    {
        return $this->facts?->serving === Serving::Gone;
    }

    public function gone(): self
    {
        return $this->with(facts: ($this->facts ?? new Facts())->and(new Facts(serving: Serving::Gone)));
    }

    /**
     * @param string $unnamed its name, where none was said
     * @return array<string, mixed> as a node of an account document, but for its place
     */
    public function written(string $unnamed): array
    {
        return [
            'level' => $this->step->level,
            'name' => $this->name() === '' && $this->step->depth === 0 ? $unnamed : $this->name(),
            ...($this->type() === null ? [] : ['type' => $this->type()]),
            ...($this->facts?->written() ?? []),
            ...($this->keywords === [] ? [] : ['keywords' => array_map(self::keyword(...), $this->keywords)]),
        ];
    }

    /**
     * @param array{string, string} $keyword
     * @return array{text: string, match: string}
     */
    private static function keyword(array $keyword): array
    {
        return ['text' => $keyword[0], 'match' => $keyword[1]];
    }

    /**
     * The same, with something else.
     *
     * @param array{int, string}|null $parent
     * @param list<array{int, int}>|null $rows
     * @param list<array{string, string}>|null $keywords
     */
    private function with(
        ?Facts $facts = null,
        ?string $mentioned = null,
        ?string $type = null,
        ?array $parent = null,
        ?array $rows = null,
        ?array $keywords = null,
        ?bool $isAmbiguous = null,
    ): self {
        return new self(
            $this->step,
            $facts ?? $this->facts,
            $mentioned ?? $this->mentioned,
            $type ?? $this->type,
            $parent ?? $this->parent,
            $this->first,
            $rows ?? $this->rows,
            $keywords ?? $this->keywords,
            $isAmbiguous ?? $this->isAmbiguous,
        );
    }
}
