<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Dialect\AutoTag;
use Vestigon\Core\Dialect\AutoTagMode;
use Vestigon\Core\Dialect\Delivery;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Inherit;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Choice;
use Vestigon\Core\Plan\Fields;
use Vestigon\Core\Plan\Shape;
use Vestigon\Core\Template\Template;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Settings;

/** Where a platform can take a plan's keys: in which slot, and from which level on. */
final readonly class Places
{
    /** Does the browser go past the hops, straight to the page? */
    private bool $passesHopsBy;

    /** @param list<Hop> $hops */
    public function __construct(
        private Dialect $dialect,
        private Settings $settings,
        private array $hops,
        private Way $way,
        private TemplateReader $reader,
    ) {
        $this->passesHopsBy = ($settings->delivery ?? ($dialect->delivery[0] ?? null)) === Delivery::Parallel;
    }

    /**
     * The slot that carries a key, and the depth of the widest level whose text can say it.
     *
     * @param Template $template the template that counts there
     * @param Template $landing the landing URL that counts there
     * @return Placed|null null: no slot can
     */
    public function of(string $key, Choice $choice, ?string $type, Template $template, Template $landing): ?Placed
    {
        $kinds = $this->kinds($key, $choice);
        foreach ($kinds as $kind) {
            $arrives = match ($kind) {
                SlotKind::Template => $this->carries($template),
                SlotKind::Suffix => $this->suffixArrives($template),
                SlotKind::Landing => true,
            };
            // the landing URL is the last resort: inside a template's redirect the keys serve the ads of tomorrow too
            $depth =
                $kind === SlotKind::Landing && $kinds[0] !== SlotKind::Landing
                    ? $this->depthInside($choice, $type, $template)
                    : null;
            if ($depth !== null) {
                return new Placed(SlotKind::Template, $depth);
            }
            $depth = $arrives
                ? $this->depth(
                    $kind,
                    $choice,
                    $type,
                    $kind === SlotKind::Landing ? $this->inside($kind, $landing) : 0,
                )
                : null;
            if ($depth !== null) {
                return new Placed($kind, $depth);
            }
        }

        return null;
    }

    /**
     * Where a key is said of which not the same is true everywhere: in a slot that gathers, no wider than the elements
     * by which that is decided; in others the nearest text counts anyway.
     *
     * @return Placed|null null: the slot does not stand there
     */
    public function apart(Placed $place, int $depth, ?string $type): ?Placed
    {
        $slot = $this->dialect->slot($place->slot);
        if ($slot?->inherit !== Inherit::Gather || $place->depth >= $depth) {
            return $place;
        }
        foreach ($this->dialect->levels as $level) {
            if ($level->depth >= $depth && $slot->countsAt($level->id, $type)) {
                return new Placed($place->slot, $level->depth);
            }
        }

        return null;
    }

    /** Does the platform itself send the key as the plan wants it? */
    public function isGiven(string $key, Choice $choice): bool
    {
        $tag = $this->tag($key);
        if ($tag === null || count($choice->parts) !== 1) {
            return false;
        }
        $part = $choice->parts[0];

        return $part->field === null
            ? $part->text === $tag->text
            : $part->field === $tag->field
                    && $choice->shape === Shape::AsIs
                    && ($choice->means[$part->field]->token->values ?? null) === null;
    }

    /** Are tokens filled in this slot? Where not, only fixed text can stand there. */
    public function fills(SlotKind $kind): bool
    {
        return $this->dialect->syntax !== null
            && ($kind !== SlotKind::Landing || ($this->dialect->slot($kind)->tokens ?? false));
    }

    /** A slot's text, with tokens where the platform fills them. */
    public function read(SlotKind $kind, string $text): Template
    {
        return $this->fills($kind) ? $this->reader->read($text) : Template::literal($text);
    }

    /** @return list<SlotKind> the slots to try, best first */
    private function kinds(string $key, Choice $choice): array
    {
        if ($this->tag($key) !== null) {
            // beside the platform's own tag the key would arrive twice; in the landing URL it keeps the tag out, if
            // anything does
            return $this->isGiven($key, $choice) || $this->mode() === AutoTagMode::Replace
                ? []
                : [SlotKind::Landing];
        }

        if (
            $this->way->splits
            && array_filter($choice->fields(), static fn (string $f): bool => Fields::owner($f) === null) === []
        ) {
            return [SlotKind::Landing];
        }

        return match ($this->way->carrier) {
            Carrier::Template => [SlotKind::Template, SlotKind::Suffix, SlotKind::Landing],
            Carrier::Landing => [SlotKind::Landing, SlotKind::Suffix, SlotKind::Template],
            default => [SlotKind::Suffix, SlotKind::Template, SlotKind::Landing],
        };
    }

    /**
     * The depth of the widest level whose template can say it inside its redirect; null: there is none, or it can't.
     */
    private function depthInside(Choice $choice, ?string $type, Template $template): ?int
    {
        $inside = $this->passesHopsBy ? 0 : $this->inside(SlotKind::Template, $template);

        return $inside === 0 ? null : $this->depth(SlotKind::Template, $choice, $type, $inside);
    }

    /** The widest level that has the slot and where the key's values are known; null if there is none. */
    private function depth(SlotKind $kind, Choice $choice, ?string $type, int $inside): ?int
    {
        $slot = $this->dialect->slot($kind);
        $least = $slot === null ? null : $this->leastDepth($kind, $choice, $type, $inside);
        foreach ($least === null ? [] : $this->dialect->levels as $level) {
            if ($level->depth >= $least && $slot?->countsAt($level->id, $type)) {
                return $level->depth;
            }
        }

        return null;
    }

    /**
     * Text that is written out can stand no wider than the elements that own the values; null: a click's values can't
     * be written out.
     */
    private function leastDepth(SlotKind $kind, Choice $choice, ?string $type, int $inside): ?int
    {
        $least = 0;
        foreach ($choice->means as $field => $means) {
            $isFilled =
                $means->tokenAt($inside, $this->dialect, $type) !== null
                || ($means->token === null
                    && $inside === 0
                    && $this->way->usesCustom($field, $choice, $this->dialect));
            if ($this->fills($kind) && $isFilled) {
                continue;
            }
            $owner = Fields::owner($field);
            $depth = $owner === null ? null : $this->dialect->levelOf($owner)?->depth;
            if ($depth === null) {
                return null;
            }
            $least = max($least, $depth);
        }

        return $least;
    }

    /**
     * How many hops the plan's keys have to stand inside of in a template or landing URL that does not carry them
     * along; 0: none.
     */
    public function inside(SlotKind $kind, Template $text): int
    {
        $way = $this->redirect($kind, $text);

        return $text->parts === [] || $way->isStraight() || $way->carries() ? 0 : $way->depth() ?? 0;
    }

    /** The way that a template or landing URL takes to the page. */
    public function redirect(SlotKind $kind, Template $text): Redirect
    {
        return $kind === SlotKind::Landing
            ? Redirect::ofLanding($text, $this->hops)
            : Redirect::of($text, $this->hops);
    }

    /**
     * A template can carry keys behind the landing URL itself, or on hops that pass them on, if the visitor comes by
     * them.
     */
    private function carries(Template $template): bool
    {
        if ($template->parts === []) {
            return $this->dialect->rawLanding() !== null;
        }
        $way = Redirect::of($template, $this->hops);

        return $way->carries() && ($way->isStraight() || ! $this->passesHopsBy);
    }

    /** A suffix that joins the click URL passes the hops of a template; one that joins the landing URL is inside. */
    private function suffixArrives(Template $template): bool
    {
        return ! $this->dialect->assembly->suffixJoinsClick
            || $template->parts === []
            || $this->passesHopsBy
            || Redirect::of($template, $this->hops)->carries();
    }

    private function tag(string $key): ?AutoTag
    {
        foreach ($this->mode() === AutoTagMode::Off ? [] : $this->dialect->autoTags->tags ?? [] as $tag) {
            if ($tag->key === $key) {
                return $tag;
            }
        }

        return null;
    }

    private function mode(): AutoTagMode
    {
        return $this->dialect->autoTags === null
            ? AutoTagMode::Off
            : $this->settings->autoTags ?? $this->dialect->autoTags->default;
    }
}
