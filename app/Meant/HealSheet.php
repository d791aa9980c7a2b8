<?php

namespace App\Meant;

use App\Models\Reading;
use App\Sheets\Files\Form;
use App\Sheets\Files\Writing;
use Illuminate\Support\Facades\DB;

/** What a reading has healed as a sheet, so that other tools can be told the same. */
final class HealSheet
{
    /** @return array{path: string, name: string, type: string} */
    public static function file(Reading $reading, string $kind): array
    {
        return Writing::files(
            [
                'healed' => [
                    [
                        'title' => 'healed',
                        'form' => new Form($kind),
                        'rows' => static fn (): iterable => self::rows($reading),
                    ],
                ],
            ],
            "as it was meant {$reading->from_day} to {$reading->to_day}",
        );
    }

    /** @return iterable<list<string|int>> */
    private static function rows(Reading $reading): iterable
    {
        yield ['key', 'arrived', 'was meant', 'views'];
        $heals = DB::table('heals')->where('reading_id', $reading->id)->orderBy('name')->orderByDesc('views');
        foreach ($heals->get() as $h) {
            yield [$h->name, $h->arrived, $h->meant, (int) $h->views];
        }
    }
}
