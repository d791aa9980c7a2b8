<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Template\TemplateReader;

/** The plan's keys that ads send already, in an account where those stay as they are. */
final class Kept
{
    /** @return list<Unmet> by ad and key */
    public static function in(Account $account, Plan $plan): array
    {
        $reader = new TemplateReader($account->dialect);
        $kept = [];
        foreach ($account->ads() as $key => $path) {
            foreach (self::onPath($path, $plan, $reader) as $sent) {
                $kept[] = new Unmet($key, $sent, 'is sent already');
            }
        }

        return $kept;
    }

    /** @return list<string> plan keys in the texts that count on this path */
    public static function onPath(Path $path, Plan $plan, TemplateReader $reader): array
    {
        $inheritance = new Inheritance($path);
        $keys = [];
        foreach (SlotKind::cases() as $kind) {
            $text = $inheritance->effective($kind)?->text;
            if ($text !== null) {
                array_push($keys, ...$reader->read($text)->query($kind === SlotKind::Suffix)->keys());
            }
        }

        return array_values(array_intersect($plan->keys(), $keys));
    }
}
