<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

/** A platform's rules: levels, slots, token syntax and catalogue, how the URL is assembled. */
final readonly class Dialect
{
    /** @var array<string, Token> by folded name */
    private array $tokensByName;

    /** @var array<string, array<string, true>|null> field → the campaign types with a token for it; null: all */
    private array $typesByField;

    /** @var array<string, Level> by id */
    private array $levelsById;

    /**
     * @param string $about the platform in a line or two
     * @param list<Level> $levels widest first
     * @param list<string> $campaignTypes
     * @param list<Token> $tokens
     * @param list<Slot> $slots
     * @param list<Delivery> $delivery the first is the default
     * @param bool $namesFreeze name fields give the name that a node had when it was published
     */
    public function __construct(
        public string $id,
        public string $title,
        public string $about,
        public string $family,
        public array $levels,
        public array $campaignTypes,
        public ?Syntax $syntax,
        public array $tokens,
        public ?CustomParameters $customParameters,
        public array $slots,
        public Assembly $assembly,
        public array $delivery,
        public ?ClickId $clickId,
        public ?AutoTags $autoTags,
        public bool $namesFreeze,
    ) {
        $byName = [];
        $types = [];
        foreach ($tokens as $token) {
            $byName[$syntax?->folded($token->name) ?? $token->name] = $token;
            $before = $types[$token->field] ?? [];
            $everywhere =
                $token->campaignTypes === null
                || (array_key_exists($token->field, $types) && $types[$token->field] === null);
            $types[$token->field] = $everywhere ? null : $before + array_fill_keys($token->campaignTypes, true);
        }
        $this->tokensByName = $byName;
        $this->typesByField = $types;
        $this->levelsById = array_combine(array_map(static fn (Level $l): string => $l->id, $levels), $levels);
    }

    /** @param string $name as typed; the dialect's case rule applies */
    public function token(string $name): ?Token
    {
        return $this->tokensByName[$this->syntax?->folded($name) ?? $name] ?? null;
    }

    /**
     * Can a click of this campaign type have the field? A field whose tokens work for other types only never has a
     * value.
     */
    public function mayHave(string $field, ?string $campaignType): bool
    {
        $types = $this->typesByField[$field] ?? null;

        return $types === null || $campaignType === null || isset($types[$campaignType]);
    }

    /** The value token that gives a field, encoded so often. */
    public function tokenFor(string $field, ?string $campaignType, int $encode = 1): ?Token
    {
        foreach ($this->tokens as $token) {
            if (
                $token->kind === TokenKind::Value
                && $token->field === $field
                && $token->encode === $encode
                && $token->worksFor($campaignType)
            ) {
                return $token;
            }
        }

        return null;
    }

    /** The token that puts the landing URL in unencoded when a template begins with it. */
    public function rawLanding(): ?Token
    {
        foreach ($this->tokens as $token) {
            if ($token->kind === TokenKind::Landing && in_array($token->encode, [null, 0], true)) {
                return $token;
            }
        }

        return null;
    }

    /** A token's or custom parameter's name between the platform's marks. */
    public function written(string $name): string
    {
        return $this->syntax?->open.$name.$this->syntax?->close;
    }

    /**
     * The platform where texts stand in some places only; a slot that stands nowhere then is none.
     *
     * @param \Closure(SlotKind, string): bool $has may a slot be set at a level?
     * @param \Closure(string): bool $hasCustom may custom parameters be set at a level?
     */
    public function within(\Closure $has, \Closure $hasCustom): self
    {
        $slots = [];
        foreach ($this->slots as $slot) {
            $levels = array_values(
                array_filter($slot->levels, static fn (string $level): bool => $has($slot->kind, $level)),
            );
            if ($levels !== []) {
                $slots[] = $slot->at($levels);
            }
        }
        $custom = $this->customParameters;
        $levels = array_values(array_filter($custom->levels ?? [], $hasCustom));

        return new self(
            $this->id,
            $this->title,
            $this->about,
            $this->family,
            $this->levels,
            $this->campaignTypes,
            $this->syntax,
            $this->tokens,
            $custom === null || $levels === []
                ? null
                : new CustomParameters(
                    $custom->prefix,
                    $levels,
                    $custom->max,
                    $custom->nameLength,
                    $custom->valueLength,
                ),
            $slots,
            $this->assembly,
            $this->delivery,
            $this->clickId,
            $this->autoTags,
            $this->namesFreeze,
        );
    }

    public function level(string $id): ?Level
    {
        return $this->levelsById[$id] ?? null;
    }

    public function levelOf(Role $role): ?Level
    {
        foreach ($this->levels as $level) {
            if ($level->role === $role) {
                return $level;
            }
        }

        return null;
    }

    public function slot(SlotKind $kind): ?Slot
    {
        foreach ($this->slots as $slot) {
            if ($slot->kind === $kind) {
                return $slot;
            }
        }

        return null;
    }
}
