<?php

declare(strict_types=1);

namespace Vestigon\Core\Decode;

use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Plan\Fields;

/** Ads whose clicks are made of the same texts: what tells them apart are their numbers, names and other facts. */
final class Kind
{
    /** @var list<Version> */
    public array $versions = [];

    /** @var array<string, array<string, list<Version>>> by field and value; made when first asked for */
    private array $by = [];

    /** @param list<Mold> $molds */
    public function __construct(public readonly array $molds) {}

    /**
     * @param array<string, string> $read values that were read, by field
     * @return list<Version> those with the one of them that fewest have, as far as those are facts of ads
     */
    public function having(array $read): array
    {
        $fewest = $this->versions;
        foreach ($read as $field => $value) {
            $by = $this->by[$field] ??= $this->index($field);
            $with = $by === [] ? $fewest : $by[$value] ?? [];
            $fewest = count($with) < count($fewest) ? $with : $fewest;
        }

        return $fewest;
    }

    /** @return array<string, list<Version>> empty: it is no fact of ads */
    private function index(string $field): array
    {
        $owner = Fields::owner($field);
        $by = [];
        foreach ($owner === null ? [] : $this->versions as $version) {
            $fact = $owner === Role::Ad ? $version->ownFact($field) : $version->facts()[$field] ?? null;
            if ($fact !== null) {
                $by[$fact][] = $version;
            }
        }

        return $by;
    }
}
