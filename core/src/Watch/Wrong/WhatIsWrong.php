<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

/** Holds what has arrived against what was agreed on; of several faults of one value the gravest is told. */
final class WhatIsWrong
{
    /** @return list<ArrivedRule> the gravest first */
    private static function rules(): array
    {
        return [
            new PersonalArrived(),
            new TokenArrived(),
            new NothingArrived(),
            new WordArrived(),
            new NumberArrived(),
            new OldName(),
            new SpeltOtherwise(),
            new InNoChannel(),
            new KeyTwice(),
            new LostBetween(),
            new NewSource(),
        ];
    }

    /** @return list<Fault> */
    public static function in(Arrived $arrived, Agreed $agreed): array
    {
        $faults = [];
        foreach (self::rules() as $rule) {
            foreach ($rule->check($arrived, $agreed) as $fault) {
                $faults["{$fault->name} {$fault->value}"] ??= $fault;
            }
        }

        return array_values($faults);
    }
}
