<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Compile\Unmet;
use Vestigon\Core\Compile\Verdicts;
use Vestigon\Core\Dialect\Inherit;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Choice;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Proof\Today;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Url\Encoding;
use Vestigon\Core\Url\Query;

/**
 * Tries by brute force whether a key that is said to be unmet could be given after all: on each element above the ad
 * and on it, in each slot, with each separator, in the platform's tokens or written out, with the key taken out of all
 * other texts on the way or not. It could if nothing else gets worse for any ad, nothing that arrives today is lost,
 * and `check` finds no other errors than before.
 */
final class GivableSearch
{
    private const MOST_ADS = 6;

    private readonly TemplateReader $reader;

    /** @var array<string, true> what is wrong after the compilation */
    private readonly array $wrong;

    private function __construct(
        private readonly Account $today,
        private readonly Account $after,
        private readonly Plan $plan,
    ) {
        $this->reader = new TemplateReader($after->dialect);
        $this->wrong = $this->faults($after);
    }

    /**
     * @param list<Unmet> $unmet
     * @return list<string> those that could be given, with the writes that would
     */
    public static function among(array $unmet, Account $today, Account $after, Plan $plan): array
    {
        if (iterator_count($today->adNodes()) > self::MOST_ADS) {
            return [];
        }
        $search = new self($today, $after, $plan);
        $found = [];
        foreach ($unmet as $one) {
            $found[] = $search->given($one->node, $one->key);
        }

        return array_values(array_filter($found, is_string(...)));
    }

    private function given(string $ad, string $key): ?string
    {
        $path = $this->after->pathTo($ad);
        $choice =
            Truth::of($this->plan, $this->after->dialect, $this->plan->lane($path), static fn (): bool => false)
                ->choices[$key] ?? null;
        $landing = (new Inheritance($path))->effective(SlotKind::Landing)?->text;
        if ($choice === null || preg_match('~^https?://~', $landing ?? '') !== 1) {
            return null; // without a page, nothing arrives
        }
        foreach ([false, true] as $alone) {
            $base = $alone ? $this->without($ad, $key) : $this->after;
            foreach ($this->after->keysTo($ad) as $node) {
                $texts = $this->texts($base->nodes[$node], $base->pathTo($node), $key, $choice, $path->fields(false));
                foreach ($texts as [$kind, $text]) {
                    $tried = $base->with([$node => $base->nodes[$node]->withSlot($kind, $text)]);
                    if ($this->isBetter($tried, $ad, $key)) {
                        return "{$ad} {$key}: {$node} {$kind->value} = {$text}"
                            .($alone ? ' (and nowhere else)' : '');
                    }
                }
            }
        }

        return null;
    }

    /**
     * @param array<string, string> $fields
     * @return iterable<array{SlotKind, string}>
     */
    private function texts(Node $node, Path $path, string $key, Choice $choice, array $fields): iterable
    {
        $dialect = $this->after->dialect;
        $type = $path->campaignType();
        foreach ($dialect->slots as $slot) {
            if (! $slot->countsAt($node->level, $type)) {
                continue;
            }
            $above =
                $slot->inherit === Inherit::Gather
                    ? null
                    : (new Inheritance($path))->effective($slot->kind)?->text;
            $now = $node->slot($slot->kind) ?? ($above ?? '');
            $raw = $dialect->rawLanding();
            $now =
                $slot->kind === SlotKind::Template && $now === '' && $raw !== null
                    ? $dialect->written($raw->name)
                    : $now;
            if ($now === '' && $slot->kind !== SlotKind::Suffix) {
                continue;
            }
            foreach (
                array_unique([
                    $this->value($choice, $type, $fields, $slot->kind !== SlotKind::Landing || $slot->tokens),
                    $this->value($choice, $type, $fields, false),
                ]) as $value
            ) {
                foreach (
                    [
                        "{$now}&{$key}={$value}",
                        Query::join($now, "{$key}={$value}"),
                        $this->reader
                            ->read($now)
                            ->query($slot->kind === SlotKind::Suffix)
                            ->with($key, $value),
                    ] as $text
                ) {
                    if (mb_strlen($text) <= ($slot->maxLength ?? PHP_INT_MAX)) {
                        yield [$slot->kind, $text];
                    }
                }
            }
        }
    }

    /** @param array<string, string> $fields */
    private function value(Choice $choice, ?string $type, array $fields, bool $fills): string
    {
        $value = '';
        foreach ($choice->parts as $part) {
            $token = $fills && $part->field !== null ? $choice->means[$part->field]->token : null;
            $value .= match (true) {
                $token !== null => $this->after->dialect->written($token->name),
                $part->field !== null => Encoding::encode($choice->fieldValue($part->field, $fields)),
                default => Encoding::encode((string) $part->text),
            };
        }

        return $value;
    }

    /** The account with the key taken out of every text that counts for the ad and is short enough without. */
    private function without(string $ad, string $key): Account
    {
        $changed = [];
        foreach ($this->after->keysTo($ad) as $at) {
            $node = $this->after->nodes[$at];
            foreach ($node->slots as $slot => $text) {
                $kind = SlotKind::from($slot);
                $clean = $this->reader
                    ->read($text)
                    ->query($kind === SlotKind::Suffix)
                    ->without([$key]);
                if (mb_strlen($clean) <= ($this->after->dialect->slot($kind)->maxLength ?? PHP_INT_MAX)) {
                    $node = $node->withSlot($kind, $clean === '' ? null : $clean);
                }
            }
            $changed[$at] = $node;
        }

        return $this->after->with($changed);
    }

    private function isBetter(Account $tried, string $ad, string $key): bool
    {
        $wrong = $this->faults($tried);
        if (array_diff_key($wrong, $this->wrong) !== []) {
            return false;
        }
        foreach (array_keys($wrong) as $fault) {
            if (str_starts_with($fault, "{$ad} {$key}\0")) {
                return false;
            }
        }

        return BruteHarm::in($this->today, $tried, $this->plan) === []
            && array_diff_key(ErrorsFound::in($tried, $this->plan), ErrorsFound::in($this->after, $this->plan)) === [];
    }

    /** @return array<string, true> */
    private function faults(Account $account): array
    {
        $faults = [];
        foreach (Verdicts::of($account, $this->plan, today: new Today($this->today)) as $ad => $verdict) {
            foreach ($verdict->counterexamples as $c) {
                $faults["{$ad} {$c->key}\0{$c->code}"] = true;
            }
        }

        return $faults;
    }
}
