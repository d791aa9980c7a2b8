<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/**
 * What of a conversion's share is one item's. The items of a share, and what is of none of them (postage, a discount),
 * add up to it exactly; so do all shares of an item to the item.
 *
 * Each item has its own value, and as much of the conversion as every other; what was taken back is taken from each by
 * its value.
 */
final readonly class Bought
{
    /**
     * @param string $item its id; '': of no item
     * @param int $part of the conversion, in millionths
     * @param int $value in minor units
     * @param int $net without what was taken back
     */
    public function __construct(public string $item, public int $part, public int $value, public int $net) {}

    /**
     * @param list<Item> $items what was bought
     * @param int $n which of the conversion's shares this is, from 0
     * @param int $of how many shares there are
     * @param int|null $value of the share; null: the conversion says none, so its items have none either
     * @param int $back what was taken back of the share
     * @return non-empty-list<self>
     */
    public static function of(array $items, int $n, int $of, int $part, ?int $value, int $back): array
    {
        $values = [];
        foreach ($items as $item) {
            $values[" {$item->id}"] = ($values[" {$item->id}"] ?? 0) + ($value === null ? 0 : $item->value);
        }
        $value ??= 0;
        if ($values === []) {
            return [new self('', $part, $value, $value - $back)];
        }
        $parts = Attribution::split($part, count($values));
        $bought = [];
        $sum = $taken = 0;
        foreach ($values as $id => $all) {
            $its = Attribution::split($all, $of)[$n];
            $sum += $its;
            $upTo = $value === 0 ? 0 : (int) round($back * ($sum / $value));
            $bought[] = new self(
                substr((string) $id, 1),
                $parts[count($bought)],
                $its,
                $its - ($upTo - $taken),
            );
            $taken = $upTo;
        }
        $rest = new self('', 0, $value - $sum, $value - $sum - ($back - $taken));

        return $rest->value === 0 && $rest->net === 0 ? $bought : [...$bought, $rest];
    }
}
