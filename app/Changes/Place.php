<?php

namespace App\Changes;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Dialect\SlotKind;

/**
 * Where a text stands on an element, as the database has it: its kind (a slot, `custom` or `setting`), and the name of
 * a custom parameter or setting.
 */
final class Place
{
    /** @return array{kind: string, name: string} */
    public static function of(Write $write): array
    {
        return match (true) {
            $write->slot !== null => ['kind' => $write->slot->value, 'name' => ''],
            $write->setting !== null => ['kind' => 'setting', 'name' => $write->setting->value],
            default => ['kind' => 'custom', 'name' => (string) $write->custom],
        };
    }

    /** @param string|null $text what is to stand there */
    public static function write(Account $account, string $node, string $kind, string $name, ?string $text): Write
    {
        $now = $account->nodes[$node];

        return match ($kind) {
            'custom' => Write::custom($node, $name, $now->custom[$name] ?? null, $text),
            'setting' => Write::setting(
                $node,
                Setting::from($name),
                $account->settings->text(Setting::from($name)),
                $text,
            ),
            default => Write::slot($node, SlotKind::from($kind), $now->slots[$kind] ?? null, $text),
        };
    }
}
