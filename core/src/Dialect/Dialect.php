<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

/** A platform's rules: levels, slots, token syntax and catalogue, how the URL is assembled. */
final readonly class Dialect
{
    /** @var array<string, Token> by folded name */
    private array $tokensByName;

    /** @var array<string, Level> by id */
    private array $levelsById;

    /**
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
        foreach ($tokens as $token) {
            $byName[$syntax?->folded($token->name) ?? $token->name] = $token;
        }
        $this->tokensByName = $byName;
        $this->levelsById = array_combine(array_map(static fn (Level $l): string => $l->id, $levels), $levels);
    }

    /** @param string $name as typed; the dialect's case rule applies */
    public function token(string $name): ?Token
    {
        return $this->tokensByName[$this->syntax?->folded($name) ?? $name] ?? null;
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
