<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

final readonly class AutoTags
{
    /**
     * @param list<AutoTag> $tags
     * @param list<AutoTagMode> $modes those that an account may choose
     */
    public function __construct(public AutoTagMode $default, public array $tags, public array $modes) {}

    public function tag(string $key): ?AutoTag
    {
        foreach ($this->tags as $tag) {
            if ($tag->key === $key) {
                return $tag;
            }
        }

        return null;
    }
}
