<?php

namespace App\Links;

use App\Models\Client;
use App\Models\Link;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Severity;

/** What is wrong with the links that there are: it changes with what is agreed on, and with the day. */
final class Faults
{
    private const AT_ONCE = 1000;

    private const CHARACTERS = 300;

    /** Looks at all links of a client again. */
    public function again(Client $client): void
    {
        $looking = Looking::by($client);
        $client->links()->chunkById(self::AT_ONCE, static function ($links) use ($looking): void {
            $byFault = [];
            foreach ($links as $link) {
                /** @var Link $link */
                $fault = self::worst($looking->findings($looking->sight($link->core())));
                if ($fault !== $link->fault) {
                    $byFault[$fault ?? ''][] = $link->id;
                }
            }
            foreach ($byFault as $fault => $ids) {
                DB::table('links')
                    ->whereIntegerInRaw('id', $ids)
                    ->update(['fault' => $fault === '' ? null : $fault]);
            }
        });
    }

    /** @param list<Finding> $findings the worst first */
    public static function worst(array $findings): ?string
    {
        $worst = $findings[0] ?? null;

        return $worst === null || $worst->severity === Severity::Note
            ? null
            : mb_substr($worst->reason, 0, self::CHARACTERS);
    }
}
