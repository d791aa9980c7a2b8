<?php

declare(strict_types=1);

namespace Vestigon\Core\Naming;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\Cursor;

/** Which elements a naming pattern is for. What is not said does not matter. */
final readonly class NamedFor
{
    /**
     * @param list<string>|null $levels ids of levels, or their roles
     * @param list<string>|null $families of platforms
     * @param list<string>|null $types of campaigns; only campaigns and what is below them has one
     * @param list<string>|null $platforms ids
     */
    public function __construct(
        public ?array $levels = null,
        public ?array $families = null,
        public ?array $types = null,
        public ?array $platforms = null,
    ) {}

    public static function read(Cursor $c): self
    {
        $list = static fn (string $key): ?array => $c->has($key) ? $c->at($key)->strings() : null;

        return new self($list('levels'), $list('families'), $list('types'), $list('platforms'));
    }

    /** @param string|null $type of the campaign that it is or stands under */
    public function fits(Dialect $dialect, string $level, ?string $type): bool
    {
        $names = [$level, $dialect->level($level)->role->value ?? ''];

        return ($this->levels === null || array_intersect($names, $this->levels) !== [])
            && ($this->types === null || in_array($type, $this->types, true))
            && $this->onPlatform($dialect);
    }

    /** Is it for anything on the platform? */
    public function onPlatform(Dialect $dialect): bool
    {
        return ($this->families === null || in_array($dialect->family, $this->families, true))
            && ($this->platforms === null || in_array($dialect->id, $this->platforms, true));
    }
}
