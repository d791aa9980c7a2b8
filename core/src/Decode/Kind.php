<?php

declare(strict_types=1);

namespace Vestigon\Core\Decode;

use Vestigon\Core\Account\Account;

/** Ads whose clicks are made of the same texts: what tells them apart are their numbers, names and other facts. */
final class Kind
{
    /** @var list<string> keys */
    public array $ads = [];

    /** @var array<string, array<string, list<string>>> field → value → keys of ads; made when first asked for */
    private array $by = [];

    /** @param list<Mold> $molds */
    public function __construct(public readonly array $molds) {}

    /**
     * @param array<string, string> $read values that were read, by field
     * @return list<string> keys of ads that have the one of them that fewest have, as far as those are facts of ads
     */
    public function having(array $read, Account $account): array
    {
        $fewest = $this->ads;
        foreach ($read as $field => $value) {
            $by = $this->by[$field] ??= $this->index($field, $account);
            $with = $by === [] ? $fewest : $by[$value] ?? [];
            $fewest = count($with) < count($fewest) ? $with : $fewest;
        }

        return $fewest;
    }

    /** @return array<string, list<string>> empty: it is no fact of ads */
    private function index(string $field, Account $account): array
    {
        $by = [];
        foreach ($this->ads as $ad) {
            $fields = $account->pathTo($ad)->fields($account->dialect->namesFreeze);
            if (isset($fields[$field])) {
                $by[$fields[$field]][] = $ad;
            }
        }

        return $by;
    }
}
