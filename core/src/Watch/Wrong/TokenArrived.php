<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

/** raw-token: a platform's token arrives where its value should be. */
final readonly class TokenArrived implements ArrivedRule
{
    public function check(Arrived $arrived, Agreed $agreed): iterable
    {
        $looks = [];
        foreach ($agreed->dialects as $dialect) {
            if ($dialect->syntax !== null) {
                $open = preg_quote($dialect->syntax->open, '~');
                $looks[] = $open.'[\w.:|-]+'.preg_quote($dialect->syntax->close, '~');
            }
        }
        foreach ($looks === [] ? [] : $arrived->each() as [$name, $value, $sessions]) {
            if (preg_match('~'.implode('|', array_unique($looks)).'~', $value, $found) === 1) {
                yield new Fault(
                    'raw-token',
                    $name,
                    $value,
                    $sessions,
                    "{$agreed->key($name)} arrives as “{$value}”: nobody has filled {$found[0]}.",
                );
            }
        }
    }
}
