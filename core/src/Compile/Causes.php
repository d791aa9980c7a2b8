<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** Says why something is unmet: the cause, where what shows is a symptom of it; each node and key once. */
final class Causes
{
    public static function named(Compiled $compiled, Task $task): Compiled
    {
        if ($compiled->unmet === []) {
            return $compiled;
        }
        $after = Write::applied($task->account, $compiled->writes);
        $clickId = Switching::isOff($after) ? $after->dialect->clickId?->parameter : null;
        $tags = $after->settings->autoTags ?? $after->dialect->autoTags?->default;
        $left = match (true) {
            $task->policy->switches === Switches::Leave => ', and switches are to be left alone',
            ! $task->scope->isWhole() => ', and only a part of the account is to be written to',
            default => '',
        };
        $named = [];
        foreach ($compiled->unmet as $unmet) {
            $place = "{$unmet->node} {$unmet->key}";
            $isTag = $left !== '' && $tags !== \Vestigon\Core\Dialect\AutoTagMode::Off && $after->dialect->autoTags?->tag($unmet->key) !== null;
            $why = match (true) {
                $unmet->key === $clickId => "the click ID is switched off for the account{$left}",
                $isTag => "{$after->dialect->title} adds a tag of its own with this key{$left}: {$unmet->reason}",
                default => $unmet->reason,
            };
            if (! isset($named[$place]) || ($unmet->isHarm && ! $named[$place]->isHarm)) {
                $named[$place] = new Unmet($unmet->node, $unmet->key, $why, $unmet->isHarm);
            }
        }

        return $compiled->lacking(array_values($named));
    }
}
