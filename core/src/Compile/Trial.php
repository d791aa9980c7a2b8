<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Inherit;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Route;

/**
 * Tries a change on one ad: what wider levels will say is said on the ad itself for a while, so that no other ad is touched.
 *
 * Not every platform takes every text on ads; there is no such trial then.
 */
final readonly class Trial
{
    /**
     * @param string $ad its key
     * @param list<Write> $asIf to write on the ad for the trial, and to take back once the change itself is made
     */
    private function __construct(public string $ad, public array $asIf) {}

    /** @param Account $after the account as the change will leave it */
    public static function on(string $ad, Account $before, Account $after): ?self
    {
        $dialect = $before->dialect;
        $alone = $after->nodes[$ad]; // the change's own writes on the ad are part of the trial
        $above = array_map(static fn (string $k): Node => $before->nodes[$k], array_slice($before->keysTo($ad), 0, -1));
        $goal = $after->pathTo($ad);
        $asIf = [];
        foreach (self::slots($dialect, $goal) as $kind) {
            $wanted = (new Inheritance($goal))->effective($kind)?->text;
            $slot = $dialect->slot($kind);
            if ($wanted === (new Inheritance(new Path($dialect, [...$above, $alone])))->effective($kind)?->text) {
                continue;
            }
            if ($slot === null || $wanted === null || $slot->inherit === Inherit::Gather || ! $slot->countsAt($alone->level, $goal->campaignType())) {
                return null;
            }
            $asIf[] = Write::slot($ad, $kind, $before->nodes[$ad]->slots[$kind->value] ?? null, $wanted);
            $alone = $alone->withSlot($kind, $wanted);
        }
        foreach (self::customs($goal) as $name) {
            $wanted = $goal->ownerOf($name)?->text;
            if ($wanted !== (new Path($dialect, [...$above, $alone]))->ownerOf($name)?->text) {
                $rules = $dialect->customParameters;
                if ($wanted === null || ! in_array($alone->level, $rules->levels ?? [], true) || count($alone->custom) >= ($rules->max ?? 0)) {
                    return null;
                }
                $asIf[] = Write::custom($ad, $name, $before->nodes[$ad]->custom[$name] ?? null, $wanted);
                $alone = $alone->withCustom($name, $wanted);
            }
        }
        $tried = new Path($dialect, [...$above, $alone]);
        $click = ['click.id' => 'K-1', 'keyword.text' => 'trial & error', 'device' => 'mobile'];
        $urls = array_map(static fn (Path $p): ?string => Route::once($p, $click, $before->settings, $before->hops)->landed, [$tried, $goal]);

        return $urls[0] === $urls[1] ? new self($ad, $asIf) : null;
    }

    /** @return list<SlotKind> those that can come from above */
    private static function slots(Dialect $dialect, Path $path): array
    {
        return array_values(array_filter(SlotKind::cases(), static fn (SlotKind $k): bool => $dialect->slot($k) !== null && $dialect->level($path->last()->level)?->role === Role::Ad));
    }

    /** @return list<string> the custom parameters that the texts which count use */
    private static function customs(Path $path): array
    {
        $reader = new TemplateReader($path->dialect);
        $names = [];
        foreach (SlotKind::cases() as $kind) {
            $text = (new Inheritance($path))->effective($kind)?->text;
            $names += $text === null ? [] : $reader->read($text)->customNames;
        }

        return array_map(strval(...), array_keys($names));
    }
}
