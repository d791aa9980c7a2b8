<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Inherit;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Lane;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Shape;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Template\Template;
use Vestigon\Core\Template\TemplateReader;

/** Words the texts that should count at a node: what is there, without the plan's keys, and the plan in its place. */
final class Wording
{
    /** @var array<string, Truth> by lane */
    private array $truths = [];

    private readonly Account $account;

    private readonly Plan $plan;

    private readonly Lanes $lanes;

    /** @var array<string, true> keys of which not the same is true in all lanes */
    private readonly array $varying;

    private readonly Places $places;

    private readonly PlanText $text;

    private readonly Fitting $fitting;

    public readonly string $rawLanding;

    /** @var array<string, CustomName> by field and shape */
    public readonly array $customs;

    public function __construct(
        private readonly Task $task,
        private readonly Way $way,
        private readonly TemplateReader $reader,
    ) {
        $this->account = $account = $task->account;
        $this->plan = $plan = $task->plan;
        $dialect = $account->dialect;
        $this->places = new Places($dialect, $account->settings, $account->hops, $way, $reader);
        $this->lanes = $task->whole->lanes();
        $truths = array_map($this->truth(...), $this->lanes->all);
        $this->varying = $plan->variants === [] ? [] : Truth::varying($truths, $plan->keys());
        $this->customs = $task->whole->names($truths, $way);
        $this->text = new PlanText(
            $dialect,
            array_map(static fn (CustomName $n): string => $n->name, $this->customs),
            $way,
        );
        $token = $dialect->rawLanding();
        $this->rawLanding = $token === null || $dialect->syntax === null ? '' : $dialect->written($token->name);
        $this->fitting = new Fitting($dialect, $way, $this->places, $this->text, $reader, $this->rawLanding);
    }

    /**
     * @param bool $isTop nothing above the node may be written to: what belongs there is said here
     * @param list<string> $kept keys that stay as they arrive
     */
    public function of(Path $path, bool $isTop, array $kept): Wanted
    {
        if ($this->way->leaves) {
            return $this->asItIs($path);
        }
        $texts = [];
        foreach (SlotKind::cases() as $kind) {
            $texts[$kind->value] = $this->cleaned($kind, $path, $kept);
        }
        if ($this->way->tidies) {
            $texts = (new Tidying(
                $this->account->dialect,
                $this->reader,
                $this->rawLanding,
                $this->ours($this->lanes->of($path)),
            ))->of($texts, $path);
        }
        $carried = $this->carried(
            $path,
            $this->task->keeps() ? [...$kept, ...Kept::onPath($path, $this->plan, $this->reader)] : $kept,
            $this->places->read(SlotKind::Template, $texts['template']),
            $this->places->read(SlotKind::Landing, $texts['landing']),
        );
        $wanted = $fields = [];
        $truth = $this->truth($this->lanes->of($path));
        foreach ([SlotKind::Suffix, SlotKind::Template, SlotKind::Landing] as $kind) {
            $keys = $this->saidHere($kind, $path, $isTop, $carried[$kind->value] ?? [], $texts[$kind->value]);
            if ($keys === null) {
                continue;
            }
            $inside =
                $kind === SlotKind::Suffix
                    ? 0
                    : $this->places->inside($kind, $this->places->read($kind, $texts[$kind->value]));
            $wanted[$kind->value] = $this->fitting->of($kind, $texts[$kind->value], $keys, $truth, $path, $inside);
            array_push(
                $fields,
                ...$this->text->writtenOut(
                    $truth,
                    $keys,
                    $path->campaignType(),
                    $this->places->fills($kind),
                    $inside,
                ),
            );
        }

        return new Wanted($wanted, $fields);
    }

    /** The texts that count at a node today. */
    private function asItIs(Path $path): Wanted
    {
        $inheritance = new Inheritance($path);
        $texts = [];
        foreach (SlotKind::cases() as $kind) {
            $slot = $this->account->dialect->slot($kind);
            if ($slot !== null && $kind !== SlotKind::Landing && $slot->inherit !== Inherit::Gather) {
                $texts[$kind->value] = new Fitted($inheritance->effective($kind)->text ?? '', []);
            }
        }

        return new Wanted($texts, []);
    }

    /** A text without the plan's keys. */
    public function without(string $text, SlotKind $kind): string
    {
        return ltrim(
            $this->reader
                ->read($text)
                ->query($kind === SlotKind::Suffix)
                ->without($this->ours($this->lanes->all[0])),
            '?&',
        );
    }

    /** @return list<string> the plan's keys on this platform; those that it leaves to others are not ours to change */
    private function ours(Lane $lane): array
    {
        $truth = $this->truth($lane);

        return array_map(strval(...), array_keys($truth->choices + $truth->unmet));
    }

    private function truth(Lane $lane): Truth
    {
        return $this->truths[$lane->id] ??= Truth::of(
            $this->plan,
            $this->account->dialect,
            $lane,
            fn (string $field, Shape $shape): bool => $shape === Shape::AsIs
                || $this->task->whole->allHave($field, $shape),
        );
    }

    /**
     * A slot's text as it counts on a path, without the plan's keys; of a slot that gathers, the node's own.
     *
     * @param list<string> $kept keys that stay as they arrive
     */
    private function cleaned(SlotKind $kind, Path $path, array $kept): string
    {
        $gathers = $this->account->dialect->slot($kind)?->inherit === Inherit::Gather;
        $text = $gathers ? $path->last()->slot($kind) : (new Inheritance($path))->effective($kind)?->text;
        if ($text === null) {
            return '';
        }
        $template = $this->places->read($kind, $text);
        if ($path->last()->slot($kind) === null) {
            // a copy of what stands above need not say what gives nothing here
            $template = $template->withoutDead($kind, $path->campaignType());
        }
        if ($kind === SlotKind::Template) {
            $template = $this->marked(
                Redirect::of($template, $this->account->hops)->mended($this->account->dialect),
            );
        }
        $ours = $this->task->keeps()
            ? []
            : array_values(array_diff($this->ours($this->lanes->of($path)), $kept));
        $clean = $template->query($kind === SlotKind::Suffix)->without($ours);

        return $kind === SlotKind::Suffix ? ltrim($clean, '?&') : Redirect::without($clean, $ours);
    }

    /**
     * With the mark that is missing between the landing URL and the first pair behind it: `{landing}a=1` is no query,
     * but another page, and so is `{landing}&a=1` where the landing URL has none.
     */
    private function marked(Template $template): Template
    {
        $text = (string) $template;
        $behind = substr($text, strlen($this->rawLanding));
        if (
            $this->rawLanding === ''
            || ! str_starts_with($text, $this->rawLanding)
            || preg_match('~^([\w.\-]+=|&[\w.\-]+(=|&|$)(?!.*\?))~s', $behind) !== 1
        ) {
            return $template;
        }

        return $this->reader->read($this->rawLanding.($this->way->joinsOn ? '&' : '?').ltrim($behind, '&'));
    }

    /**
     * Which slot carries which keys, from which depth on.
     *
     * @param list<string> $keep
     * @return array<string, array<string, int>> slot → key → depth
     */
    private function carried(Path $path, array $keep, Template $template, Template $landing): array
    {
        $lane = $this->lanes->of($path);
        $carried = [];
        $fields = $path->fields(false);
        foreach ($this->truth($lane)->choices as $key => $choice) {
            // bytes that are no text arrive as other text, however they are sent
            $isText = mb_check_encoding(implode('', array_intersect_key($fields, $choice->means)), 'UTF-8');
            $place =
                ! $isText || in_array((string) $key, $keep, true)
                    ? null
                    : $this->places->of((string) $key, $choice, $lane->type, $template, $landing);
            if ($place !== null && isset($this->varying[$key])) {
                $place = $this->places->apart($place, $this->lanes->depth, $lane->type);
            }
            if ($place !== null) {
                $carried[$place->slot->value][$key] = $place->depth;
            }
        }

        return $carried;
    }

    /**
     * The keys that a slot says at a node.
     *
     * @param array<string, int> $keys the keys that the slot carries → the depth from which on it can
     * @return list<string>|null null: the slot's text is no business of this node
     */
    private function saidHere(SlotKind $kind, Path $path, bool $isTop, array $keys, string $clean): ?array
    {
        $depth = $this->account->dialect->level($path->last()->level)->depth ?? 0;
        if ($this->account->dialect->slot($kind)?->inherit === Inherit::Gather) {
            $keys = array_filter($keys, static fn (int $d): bool => $d === $depth || ($isTop && $d < $depth));
        } elseif ($keys !== [] && max($keys) > $depth) {
            return null; // what the plan says here is said on a narrower level, whose text is the one that counts
        }

        return $kind === SlotKind::Landing && $clean === '' ? null : array_map(strval(...), array_keys($keys));
    }
}
