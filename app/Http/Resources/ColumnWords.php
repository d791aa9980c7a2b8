<?php

namespace App\Http\Resources;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Level;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Sheet\SuggestedColumn;

/** What columns of a platform's sheets can mean, and what one is taken for. */
final class ColumnWords
{
    /** @return array{levels: list<array<string, mixed>>, types: list<string>, switches: array<string, list<string>>} */
    public static function of(Dialect $dialect): array
    {
        $switches = [];
        foreach (Setting::cases() as $setting) {
            $switches[$setting->value] = $setting->choices($dialect);
        }

        return [
            'levels' => array_map(
                static fn (Level $l): array => ['id' => $l->id, 'label' => $l->label, 'depth' => $l->depth],
                $dialect->levels,
            ),
            'types' => $dialect->campaignTypes,
            'switches' => array_filter($switches),
        ];
    }

    /** @return array<string, mixed> */
    public static function column(SuggestedColumn $c): array
    {
        return [
            'heading' => $c->heading,
            'means' => $c->means->written(),
            'values' => $c->values === null ? null : (object) $c->values,
            'certainty' => $c->certainty,
            'why' => $c->why,
            'asked' => $c->asked,
            'form' => $c->form->toArray(),
        ];
    }
}
