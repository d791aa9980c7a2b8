<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Findings\Guess;
use Vestigon\Core\Findings\Keys;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;

/** key-typo: a key that is almost one of the plan's or of the five UTM keys. */
final readonly class KeyTypo implements TextRule
{
    public function check(Spot $spot): iterable
    {
        foreach ($spot->parameters() as $pair) {
            $typed = $pair->key;
            if (
                ! $pair->keyFixed
                || $pair->value === null
                || strlen($typed) < 5
                || in_array($typed, $spot->keys, true)
            ) {
                continue;
            }
            $meant = Guess::nearest($typed, $spot->keys);
            if ($meant !== null) {
                yield $spot->finding(
                    'key-typo',
                    Severity::Error,
                    "{$typed} is read as a key of its own; {$meant} is meant, it seems.",
                    $pair->at,
                    strlen($typed),
                    key: $typed,
                    fix: $spot->instead("write {$meant}", $pair->at, strlen($typed), $meant),
                );
            }
        }
    }
}
