<?php

namespace App\Accounts;

use App\Models\Text;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Setting;

/** What accounts switch for all of their ads, as the interface wants it. */
final class Switched
{
    /**
     * @param list<int> $roots the accounts' own elements
     * @return array<int, array<string, string>> by root: what somebody has switched
     */
    public static function of(array $roots): array
    {
        $switched = [];
        foreach (
            Text::query()
                ->whereIntegerInRaw('node_id', $roots)
                ->where('kind', 'setting')
                ->whereNull('until')
                ->toBase()
                ->get(['node_id', 'name', 'text']) as $text
        ) {
            $switched[$text->node_id][$text->name] = $text->text;
        }

        return $switched;
    }

    /**
     * @param array<string, string> $switched
     * @return list<array{setting: string, now: string, choices: list<string>}> all that can be switched on the platform
     */
    public static function show(Dialect $dialect, array $switched): array
    {
        $all = [];
        foreach (Setting::cases() as $setting) {
            $choices = $setting->choices($dialect);
            if ($choices !== []) {
                $all[] = [
                    'setting' => $setting->value,
                    'now' => $switched[$setting->value] ?? (string) $setting->default($dialect),
                    'choices' => $choices,
                ];
            }
        }

        return $all;
    }
}
