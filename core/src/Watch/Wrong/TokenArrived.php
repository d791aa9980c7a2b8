<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

use Vestigon\Core\Dialect\Token;

/** raw-token: a platform's token arrives where its value should be, whole or cut off before its closing mark. */
final readonly class TokenArrived implements ArrivedRule
{
    public function check(Arrived $arrived, Agreed $agreed): iterable
    {
        $looks = [];
        foreach ($agreed->dialects as $dialect) {
            if ($dialect->syntax !== null) {
                $open = preg_quote($dialect->syntax->open, '~');
                $looks[] = $open.'[\w.:|-]+'.preg_quote($dialect->syntax->close, '~');
                $names = array_map(static fn (Token $t): string => preg_quote($t->name, '~'), $dialect->tokens);
                $looks[] = "{$open}(?:".implode('|', $names).')$';
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
