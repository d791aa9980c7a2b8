<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;

/** What takes the plan's place for some platforms, campaign types or elements: for a brand, a market, one campaign. */
final readonly class Variant
{
    /**
     * @param string $id unlike that of any other variant of the plan
     * @param list<string>|null $platforms dialect ids; null: all
     * @param list<string>|null $types campaign types; null: all
     * @param array<string, list<string>> $where field of an account, campaign or group → the values it may have; all of
     *     these fields must have one of theirs
     * @param list<Parameter> $parameters all that is sent there, in this order
     */
    public function __construct(
        public string $id,
        public string $title,
        public ?array $platforms,
        public ?array $types,
        public array $where,
        public array $parameters,
    ) {}

    /** How deep the elements stand on a platform that decide whether it counts; 0: it counts for whole accounts. */
    public function depthOn(Dialect $dialect): int
    {
        $owners = array_map(Fields::owner(...), array_keys($this->where));
        $depths = array_map(
            static fn (?Role $owner): int => ($owner === null ? null : $dialect->levelOf($owner)?->depth) ?? 0,
            $this->types === null ? $owners : [...$owners, Role::Campaign],
        );

        return max([0, ...$depths]);
    }

    /** For whom it counts, in words. */
    public function told(): string
    {
        $all = ['platform' => $this->platforms, 'campaign type' => $this->types] + $this->where;
        $told = [];
        foreach (array_filter($all) as $what => $values) {
            $told[] = "{$what} is ".implode(' or ', $values);
        }

        return implode(', ', $told);
    }

    /** Does it count for the last element of the path? What stands above the elements that it names has the plan's. */
    public function countsFor(Path $path): bool
    {
        if ($this->platforms !== null && ! in_array($path->dialect->id, $this->platforms, true)) {
            return false;
        }
        if ($this->types !== null && ! in_array($path->campaignType(), $this->types, true)) {
            return false;
        }
        $known = $this->where === [] ? [] : $path->fields(false);
        foreach ($this->where as $field => $values) {
            if (! isset($known[$field]) || ! in_array($known[$field], $values, true)) {
                return false;
            }
        }

        return true;
    }
}
