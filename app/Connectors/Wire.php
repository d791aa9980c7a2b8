<?php

namespace App\Connectors;

use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Trace\Settings;

/** Elements and updates as they go over the wire: docs/formats/connector.openapi.yaml. */
final class Wire
{
    /** @return array<string, mixed> */
    public static function update(RemoteUpdate $u): array
    {
        return [
            'node' => $u->node,
            'version' => $u->version,
            ...match ($u->kind) {
                'custom' => ['custom' => $u->name, 'value' => $u->value],
                'setting' => [
                    'setting' => $u->name,
                    'value' => Setting::from($u->name)->inDocuments($u->value),
                ],
                default => ['slot' => $u->kind, 'value' => $u->value],
            },
        ];
    }

    /** @return array<string, string> */
    private static function settings(Settings $settings): array
    {
        $texts = [];
        foreach (Setting::cases() as $setting) {
            $texts[$setting->value] = $settings->text($setting);
        }

        return array_filter($texts, static fn (?string $t): bool => $t !== null);
    }

    /** @throws UnusableInput with the place of the first thing that is wrong */
    public static function node(Cursor $c): RemoteNode
    {
        $pair = static fn (Cursor $k): array => [
            'text' => $k->at('text')->string(),
            'match' => $k->at('match')->string(),
        ];

        return new RemoteNode(
            $c->at('id')->text(),
            $c->has('parent') ? $c->at('parent')->text() : null,
            $c->at('level')->string(),
            $c->at('name')->string(),
            $c->has('type') ? $c->at('type')->string() : null,
            $c->at('version')->int(),
            $c->at('slots')->stringMap(),
            $c->at('custom')->stringMap(),
            $c->has('keywords') ? array_map($pair, $c->at('keywords')->list()) : [],
            $c->has('publishedName') ? $c->at('publishedName')->string() : null,
            $c->has('facts') ? $c->at('facts')->stringMap() : [],
            $c->has('standing') ? $c->at('standing')->string() : 'live',
            $c->has('settings') ? self::settings(Settings::read($c->at('settings'))) : [],
        );
    }
}
