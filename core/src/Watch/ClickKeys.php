<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** The parameters in which a client's platforms send click IDs. */
final readonly class ClickKeys
{
    /** @var array<string, string> parameter → the first platform that uses it */
    private array $platforms;

    /**
     * @param array<string, string> $parameters platform → its parameter, the one that counts first
     * @param array<string, string> $families platform → its family
     */
    public function __construct(array $parameters = [], private array $families = [])
    {
        $platforms = [];
        foreach ($parameters as $platform => $parameter) {
            $platforms[$parameter] ??= (string) $platform;
        }
        $this->platforms = $platforms;
    }

    /**
     * The first that is there and not empty.
     *
     * @param list<array{string, string}> $pairs
     * @return array{string, string}|null the click ID and its platform
     */
    public function in(array $pairs): ?array
    {
        foreach ($pairs as [$key, $value]) {
            if ($value !== '' && isset($this->platforms[$key])) {
                return [$value, $this->platforms[$key]];
            }
        }

        return null;
    }

    public function family(?string $platform): string
    {
        return $this->families[$platform ?? ''] ?? '';
    }
}
