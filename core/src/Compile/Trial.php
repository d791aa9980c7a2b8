<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Route;

/**
 * Tries a change on one ad: what wider levels will say is said on the ad itself for a while, so that no other ad is
 * touched.
 *
 * What the account switches can't be tried so: it touches every ad, and is switched already by then.
 *
 * Not every platform takes every text on ads. It is said on the narrowest element above the ad that takes it then, and
 * the ads below that one are touched too.
 */
final readonly class Trial
{
    /**
     * @param string $ad its key
     * @param list<string> $nodes the keys of the ad and what stands above it, as far as the trial writes; the widest
     *     first
     * @param list<Write> $asIf to write on the widest of these for the trial, and to take back once the change itself
     *     is made
     */
    private function __construct(public string $ad, public array $nodes, public array $asIf) {}

    /**
     * @param Account $after the account as the change will leave it
     * @return self|null null: it would have to be said on the account itself
     */
    public static function on(string $ad, Account $before, Account $after): ?self
    {
        $keys = $before->keysTo($ad);
        for ($at = count($keys) - 1; $at > 0; $at--) {
            $asIf = self::saidAt($at, $keys, $before, $after);
            if ($asIf !== null) {
                return new self($ad, array_slice($keys, $at), $asIf);
            }
        }

        return null;
    }

    public function isOnAdAlone(): bool
    {
        return count($this->nodes) === 1;
    }

    /**
     * @param list<string> $keys from the widest element to the ad
     * @return list<Write>|null what has to be said on one of them for the ad to arrive as after the change; null: that
     *     can't be said there
     */
    private static function saidAt(int $at, array $keys, Account $before, Account $after): ?array
    {
        $dialect = $before->dialect;
        $goal = $after->pathTo($keys[count($keys) - 1]);
        $node = $after->nodes[$keys[$at]]; // the change's own writes from here down are part of the trial
        $tried = static fn (Node $node): Path => new Path($dialect, [
            ...array_map(static fn (string $k): Node => $before->nodes[$k], array_slice($keys, 0, $at)),
            $node,
            ...array_slice($goal->nodes, $at + 1),
        ]);
        $asIf = [];
        foreach (SlotKind::cases() as $kind) {
            $wanted = (new Inheritance($goal))->effective($kind)?->text;
            if ($wanted === (new Inheritance($tried($node)))->effective($kind)?->text) {
                continue;
            }
            if (
                $wanted === null
                || ! ($dialect->slot($kind)?->countsAt($node->level, $goal->campaignType()) ?? false)
            ) {
                return null;
            }
            $asIf[] = Write::slot(
                $keys[$at],
                $kind,
                $before->nodes[$keys[$at]]->slots[$kind->value] ?? null,
                $wanted,
            );
            $node = $node->withSlot($kind, $wanted);
        }
        foreach (self::customs($goal) as $name) {
            $wanted = $goal->ownerOf($name)?->text;
            if ($wanted !== $tried($node)->ownerOf($name)?->text) {
                $rules = $dialect->customParameters;
                if (
                    $wanted === null
                    || ! in_array($node->level, $rules->levels ?? [], true)
                    || count($node->custom) >= ($rules->max ?? 0)
                ) {
                    return null;
                }
                $asIf[] = Write::custom(
                    $keys[$at],
                    $name,
                    $before->nodes[$keys[$at]]->custom[$name] ?? null,
                    $wanted,
                );
                $node = $node->withCustom($name, $wanted);
            }
        }
        $click = ['click.id' => 'K-1', 'keyword.text' => 'trial & error', 'device' => 'mobile'];
        $urls = array_map(
            static fn (Path $p): ?string => Route::once($p, $click, $after->settings, $after->hops)->landed,
            [$tried($node), $goal],
        );

        return $urls[0] === $urls[1] ? $asIf : null;
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
