<?php

namespace App\Changes;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Dialect\SlotKind;

/**
 * Where a text stands on an element, as the database has it: its kind (a slot, `custom`, `setting` or `name`), and the
 * name of a custom parameter or setting.
 */
final class Place
{
    /** @return array{kind: string, name: string} */
    public static function of(Write $write): array
    {
        return match (true) {
            $write->slot !== null => ['kind' => $write->slot->value, 'name' => ''],
            $write->setting !== null => ['kind' => 'setting', 'name' => $write->setting->value],
            $write->custom !== null => ['kind' => 'custom', 'name' => $write->custom],
            default => ['kind' => 'name', 'name' => ''],
        };
    }

    /** @param string|null $text what is to stand there, in place of what does in the account */
    public static function write(Account $account, string $node, string $kind, string $name, ?string $text): Write
    {
        $now = $account->nodes[$node];

        return self::written($node, $kind, $name, match ($kind) {
            'custom' => $now->custom[$name] ?? null,
            'setting' => $account->settings->text(Setting::from($name)),
            'name' => $now->name,
            default => $now->slots[$kind] ?? null,
        }, $text);
    }

    public static function written(string $node, string $kind, string $name, ?string $before, ?string $after): Write
    {
        return match ($kind) {
            'custom' => Write::custom($node, $name, $before, $after),
            'setting' => Write::setting($node, Setting::from($name), $before, $after),
            'name' => Write::name($node, (string) $before, (string) $after),
            default => Write::slot($node, SlotKind::from($kind), $before, $after),
        };
    }
}
