<?php

namespace App\Watching;

use App\Support\Text;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Watch\Bought;
use Vestigon\Core\Watch\Item;

/** What was bought, as the database has it. */
final class Items
{
    /** An item's id, in characters. */
    private const ID = 128;

    /**
     * @param list<Item> $items of the conversion; the rest as Bought takes it
     * @return string|null what of a share is each item's; null: nothing was bought
     */
    public static function ofShare(array $items, int $n, int $of, int $part, ?int $value, int $back): ?string
    {
        return $items === [] ? null : self::encoded(
            array_map(get_object_vars(...), Bought::of($items, $n, $of, $part, $value, $back)),
        );
    }

    /**
     * @param list<Item> $items
     * @return string|null null: none
     */
    public static function kept(array $items): ?string
    {
        return $items === [] ? null : self::encoded(array_map(get_object_vars(...), $items));
    }

    /** @return list<Item> of what a conversion has kept */
    public static function of(?string $kept): array
    {
        return array_map(
            static fn (array $i): Item => new Item(
                Text::fit($i['id'], self::ID),
                $i['name'],
                $i['quantity'],
                $i['value'],
            ),
            $kept === null ? [] : json_decode($kept, true, flags: JSON_THROW_ON_ERROR),
        );
    }

    /**
     * What items are called: as the last conversion calls them.
     *
     * @param list<Item> $items
     */
    public static function name(int $client, array $items): void
    {
        $names = [];
        foreach ($items as $item) {
            if (($item->name ?? '') !== '') {
                $id = Text::fit($item->id, self::ID);
                $names[" {$id}"] = ['client_id' => $client, 'item' => $id, 'name' => Text::fit($item->name, 191)];
            }
        }
        ksort($names); // in one order, so that two never wait for each other
        DB::table('item_names')->upsert(array_values($names), ['client_id', 'item'], ['name']);
    }

    /** @param list<array<string, mixed>> $items */
    private static function encoded(array $items): string
    {
        return json_encode($items, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_INVALID_UTF8_SUBSTITUTE);
    }
}
