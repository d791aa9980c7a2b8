<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Url\Query;

/**
 * Puts as many of the plan's keys into a text as it can hold: as there is room for, and as leave every token the one
 * that it is. Costs a reading of the text, and of each key by itself where not all can stand there.
 */
final readonly class Fitting
{
    public function __construct(
        private Dialect $dialect,
        private Way $way,
        private Places $places,
        private PlanText $words,
        private TemplateReader $reader,
        private string $rawLanding,
    ) {}

    /**
     * @param string $clean what stands there, without the plan's keys
     * @param list<string> $keys in the plan's order, which is their order of importance, required ones first
     * @param int $inside how many hops the text stands inside of
     */
    public function of(SlotKind $kind, string $clean, array $keys, Truth $truth, Path $path, int $inside): Fitted
    {
        $with = fn (string ...$keys): ?string => $this->joined(
            $kind,
            $clean,
            $this->words->query($truth, array_values($keys), $path, $this->places->fills($kind), $inside),
            $inside,
        );
        [$keys, $out] = $this->readable($keys, $with, $kind);
        $whole = $text = $with(...$keys) ?? $clean;
        $most = $this->dialect->slot($kind)->maxLength ?? PHP_INT_MAX;
        while (mb_strlen($text) > $most && $keys !== []) {
            $lesser = array_diff($keys, $truth->required) ?: $keys;
            $key = $lesser[array_key_last($lesser)];
            $keys = array_values(array_diff($keys, [$key]));
            $text = $with(...$keys) ?? $clean;
            $out[] = new LeftOut(
                $key,
                "left out: with it the {$kind->value} would have "
                    .mb_strlen($whole)
                    ." characters, {$this->dialect->title} takes {$most}",
            );
        }

        return new Fitted($text, $out);
    }

    /**
     * The keys that can stand there together with every token read as it is meant, in order.
     *
     * @param list<string> $keys
     * @param \Closure(string...): ?string $with the text with keys
     * @return array{list<string>, list<LeftOut>}
     */
    private function readable(array $keys, \Closure $with, SlotKind $kind): array
    {
        if ($with(...$keys) !== null) {
            return [$keys, []];
        }
        $stay = $out = [];
        foreach ($keys as $key) {
            if ($with(...$stay, ...[$key]) !== null) {
                $stay[] = $key;

                continue;
            }
            $out[] = new LeftOut(
                $key,
                "left out: with it the tokens of the {$kind->value} would be read as others, since "
                    ."{$this->dialect->title} marks them with {$this->dialect->syntax?->open}",
            );
        }

        return [$stay, $out];
    }

    /**
     * Ours stand behind theirs; or before them, if a token of theirs that is not closed would swallow ours.
     *
     * @return string|null null: either way a token would be read as another
     */
    private function joined(SlotKind $kind, string $clean, string $ours, int $inside): ?string
    {
        if ($ours === '') {
            return $clean;
        }
        if ($inside > 0) {
            $there = $this->places->redirect($kind, $this->places->read($kind, $clean));

            return $there->inside($ours, $this->way->joinsOn);
        }
        $theirs = $kind === SlotKind::Template && $clean === '' ? $this->rawLanding : $clean;
        $isSuffix = $kind === SlotKind::Suffix;
        $behind = match (true) {
            $isSuffix => ltrim(Query::join('?'.$theirs, $ours), '?'),
            $kind === SlotKind::Template && $this->goesOn($theirs) => "{$theirs}&{$ours}",
            default => Query::join($theirs, $ours),
        };
        if (! $this->places->fills($kind) || $this->isReadAs($behind, $theirs, $ours)) {
            return $behind;
        }
        $before = $this->reader->read($theirs)->query($isSuffix)->before($ours);

        return $before !== null && $this->isReadAs($before, $theirs, $ours) ? $before : null;
    }

    /** Does a template go on with `&`, since the landing URL in it has a query by the time it is put in? */
    private function goesOn(string $theirs): bool
    {
        return $this->way->joinsOn
            && $this->rawLanding !== ''
            && str_starts_with($theirs, $this->rawLanding)
            && strpbrk($theirs, '?#') === false;
    }

    /** Are the tokens of a text those of the two that it is put together of? */
    private function isReadAs(string $text, string $theirs, string $ours): bool
    {
        $tokens = $this->reader->read($theirs)->tokens();
        foreach ($this->reader->read($ours)->tokens() as $spelling => $times) {
            $tokens[$spelling] = ($tokens[$spelling] ?? 0) + $times;
        }

        return $this->reader->read($text)->tokens() == $tokens; // in whatever order
    }
}
