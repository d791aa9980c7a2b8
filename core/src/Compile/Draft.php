<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Inherit;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Shape;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Template\Template;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Url\Query;

/** One way of bringing an account in line, worked out from the account downwards: every node gets the text that its ads should have, and only where they do not have it yet. */
final class Draft
{
    /** @var list<Write> */
    private array $writes = [];

    /** @var list<Unmet> what a text or a custom parameter could not take */
    private array $unmet = [];

    /** @var list<Unmet> */
    private array $kept = [];

    /** @var list<Write> */
    private array $overridden = [];

    /** @var array<string, list<Unmet>> custom parameter → the nodes that can't take it */
    private array $noRoom = [];

    /** @var array<string, Node> the nodes as they will be */
    private array $after = [];

    /** @var array<string, Truth> by campaign type */
    private array $truths = [];

    private readonly TemplateReader $reader;

    private readonly PlanText $text;

    private readonly ?string $mainType;

    private readonly Places $places;

    public function __construct(private readonly Account $account, private readonly Plan $plan, private readonly Existing $existing, Carrier $carrier)
    {
        $this->places = new Places($account->dialect, $account->settings, $account->hops, $carrier);
        $this->reader = new TemplateReader($account->dialect);
        $types = $account->campaignTypes();
        $this->mainType = array_key_first($types);
        $truths = array_map(fn (string $type): Truth => $this->truth($type), array_keys($types));
        $names = CustomNames::choose($account, $truths, $plan->keys());
        $this->text = new PlanText($account->dialect, array_map(static fn (array $n): string => $n[0], $names));
        $this->writeCustoms(array_values($names));
    }

    /** The account as it is, with what is not true in it. */
    public function nothing(): Compiled
    {
        [$this->writes, $this->after] = [[], []];
        foreach ($this->existing === Existing::Keep ? $this->account->ads() : [] as $key => $path) {
            array_push($this->kept, ...array_map(static fn (string $kept): Unmet => new Unmet($key, $kept, 'is sent already'), $this->sentAlready($path)));
        }

        return new Compiled([], Untrue::in($this->account, $this->plan, $this->kept), $this->kept, []);
    }

    public function compiled(): Compiled
    {
        foreach ($this->topDown() as $key) {
            $this->bring($key);
        }
        $this->dropUnusedCustoms();

        return $this->result();
    }

    /** The same without the writes that nobody needs. */
    public function least(): Compiled
    {
        [$this->writes, $this->after] = Needed::of($this->account, $this->after, $this->writes, $this->plan);
        $this->overridden = array_values(array_filter($this->overridden, fn (Write $w): bool => in_array($w, $this->writes, true)));

        return $this->result();
    }

    private function result(): Compiled
    {
        return new Compiled($this->writes, [...$this->unmet, ...Untrue::in($this->account->with($this->after), $this->plan, $this->kept)], $this->kept, $this->overridden);
    }

    /** Custom parameters are named before it is known which slots carry what: those that no text uses are not written after all. */
    private function dropUnusedCustoms(): void
    {
        $used = [];
        foreach ($this->account->with($this->after)->nodes as $node) {
            foreach ($node->slots as $text) {
                $used += $this->reader->read($text)->customNames;
            }
        }
        array_push($this->unmet, ...array_merge([], ...array_values(array_intersect_key($this->noRoom, $used))));
        $this->writes = array_values(array_filter($this->writes, function (Write $write) use ($used): bool {
            if ($write->custom === null || isset($used[$write->custom])) {
                return true;
            }
            $this->after[$write->node] = $this->after[$write->node]->withCustom($write->custom, $write->before);

            return false;
        }));
    }

    private function truth(?string $type): Truth
    {
        return $this->truths[$type ?? ''] ??= Truth::of(
            $this->plan,
            $this->account->dialect,
            $type,
            fn (string $field, Shape $shape): bool => $this->account->allHave($field, $shape->of(...)),
        );
    }

    /** @param list<array{string, string, Shape}> $names name, field, shape */
    private function writeCustoms(array $names): void
    {
        $rules = $this->account->dialect->customParameters;
        foreach ($this->account->nodes as $key => $node) {
            $role = $this->account->dialect->level($node->level)->role->value ?? '';
            foreach ($names as [$name, $field, $shape]) {
                if (! str_starts_with($field, "{$role}.")) {
                    continue;
                }
                $value = $shape->of((new Path($this->account->dialect, [$node]))->fields(false)[$field] ?? '');
                $before = $node->custom[$name] ?? null;
                $tooMany = $before === null && count($node->custom) >= ($rules->max ?? 0);
                if ($tooMany || mb_strlen($value) > ($rules->valueLength ?? 0)) {
                    $why = $tooMany ? "the most of {$rules?->max} custom parameters are in use" : "the value is longer than the {$rules?->valueLength} characters a custom parameter takes";
                    $this->noRoom[$name][] = new Unmet((string) $key, $field, "{$node->name}: {$why}");
                } elseif ($before !== $value) {
                    $this->put((string) $key, $node->withCustom($name, $value), Write::custom((string) $key, $name, $before, $value));
                }
            }
        }
    }

    /** @return list<string> node keys, wider levels first */
    private function topDown(): array
    {
        $byDepth = [];
        foreach ($this->account->nodes as $key => $node) {
            $byDepth[$this->account->dialect->level($node->level)->depth ?? 0][] = (string) $key;
        }
        ksort($byDepth);

        return array_merge(...array_values($byDepth));
    }

    private function bring(string $key): void
    {
        $before = $this->account->pathTo($key);
        $keep = $this->existing === Existing::Keep ? $this->sentAlready($before) : [];
        $texts = [];
        foreach (SlotKind::cases() as $kind) {
            $texts[$kind->value] = $this->cleaned($kind, $before);
        }
        $carried = $this->carried($before, $keep, $this->reader->read($texts['template']));
        foreach ([SlotKind::Suffix, SlotKind::Template, SlotKind::Landing] as $kind) {
            $this->text($key, $kind, $before, $texts[$kind->value], $carried[$kind->value] ?? []);
        }
        if ($this->account->dialect->level($before->last()->level)?->role === Role::Ad) {
            foreach ($keep as $kept) {
                $this->kept[] = new Unmet($key, $kept, 'is sent already');
            }
        }
    }

    /** A slot's text as it counts on a path, without the plan's keys; of a slot that gathers, the node's own. */
    private function cleaned(SlotKind $kind, Path $path): string
    {
        $gathers = $this->account->dialect->slot($kind)?->inherit === Inherit::Gather;
        $text = $gathers ? $path->last()->slot($kind) : (new Inheritance($path))->effective($kind)?->text;
        $drop = $this->existing === Existing::Replace ? $this->plan->keys() : [];
        $clean = $text === null ? '' : Chunks::of($this->places->fills($kind) ? $this->reader->read($text) : Template::literal($text))->without($drop, $kind === SlotKind::Suffix);

        return $kind === SlotKind::Suffix ? ltrim($clean, '?&') : $clean;
    }

    /**
     * Which slot carries which keys, from which depth on.
     *
     * @param list<string> $keep
     * @return array<string, array<string, int>> slot → key → depth
     */
    private function carried(Path $path, array $keep, Template $template): array
    {
        $type = $path->campaignType() ?? $this->mainType;
        $carried = [];
        foreach ($this->truth($type)->choices as $key => $choice) {
            $place = in_array((string) $key, $keep, true) ? null : $this->places->of((string) $key, $choice, $type, $template);
            if ($place !== null) {
                $carried[$place[0]->value][$key] = $place[1];
            }
        }

        return $carried;
    }

    /** @param array<string, int> $keys the keys that the slot carries → the depth from which on it can */
    private function text(string $key, SlotKind $kind, Path $before, string $clean, array $keys): void
    {
        $dialect = $this->account->dialect;
        $depth = $dialect->level($before->last()->level)->depth ?? 0;
        $gathers = $dialect->slot($kind)?->inherit === Inherit::Gather;
        if ($gathers) {
            $keys = array_filter($keys, static fn (int $d): bool => $d === $depth);
        } elseif ($keys !== [] && max($keys) > $depth) {
            return; // what the plan says here is said on a narrower level, whose text is the one that counts
        }
        if ($kind === SlotKind::Landing && $clean === '') {
            return;
        }
        $ours = $this->text->query($this->truth($before->campaignType() ?? $this->mainType), array_map(strval(...), array_keys($keys)), $before, $this->places->fills($kind));
        $wanted = match ($kind) {
            SlotKind::Suffix => ltrim(Query::join('?'.$clean, $ours), '?'),
            SlotKind::Template => $ours === '' ? $clean : Query::join($clean === '' ? $this->rawLanding() : $clean, $ours),
            SlotKind::Landing => Query::join($clean, $ours),
        };
        $this->set($key, $kind, $wanted, $before, $gathers);
    }

    /** Gives a node's slot its text, if what it inherits and has does not come to the same. */
    private function set(string $key, SlotKind $kind, string $wanted, Path $before, bool $gathers): void
    {
        $dialect = $this->account->dialect;
        $node = $this->after[$key] ?? $before->last();
        $slot = $dialect->slot($kind);
        if ($slot === null || ! $slot->countsAt($node->level, $before->campaignType())) {
            return;
        }
        $own = $before->last()->slot($kind);
        $above = array_map(fn (string $k): Node => $this->after[$k] ?? $this->account->nodes[$k], array_slice($this->account->keysTo($key), 0, -1));
        $inherited = $gathers ? '' : (new Inheritance(new Path($dialect, [...$above, $node->withSlot($kind, null)])))->effective($kind)->text ?? '';
        $bare = $kind === SlotKind::Template ? $this->rawLanding() : ''; // the landing URL alone is what no template gives
        if (($wanted === '' || $wanted === $bare) && $inherited === '') {
            $wanted = $own === $bare ? $bare : '';
        } elseif ($wanted === '') {
            // a suffix can't be empty below one that is not: without the plan's keys it is the nearest to that
            $wanted = $kind === SlotKind::Suffix ? ltrim(Chunks::of($this->reader->read($inherited))->without($this->plan->keys(), true), '?&') : $bare;
        }
        $text = $wanted === $inherited || $wanted === '' ? null : $wanted;
        if ($text === $own) {
            return;
        }
        if ($text !== null && $slot->maxLength !== null && mb_strlen($text) > $slot->maxLength) {
            $this->unmet[] = new Unmet($key, '', "{$node->name}: the {$kind->value} would have ".mb_strlen($text)." characters, {$dialect->title} takes {$slot->maxLength}");

            return;
        }
        $write = Write::slot($key, $kind, $before->last()->slots[$kind->value] ?? null, $text);
        if ($own !== null && $this->account->parents[$key] !== null) {
            $this->overridden[] = $write;
        }
        $this->put($key, $node->withSlot($kind, $text), $write);
    }

    private function put(string $key, Node $after, Write $write): void
    {
        $this->after[$key] = $write->slot === null && isset($this->after[$key])
            ? $this->after[$key]->withCustom($write->custom ?? '', $write->after)
            : $after;
        $this->writes[] = $write;
    }

    private function rawLanding(): string
    {
        $token = $this->account->dialect->rawLanding();

        return $token === null || $this->account->dialect->syntax === null ? '' : $this->account->dialect->written($token->name);
    }

    /** @return list<string> plan keys in the texts that count on this path */
    private function sentAlready(Path $path): array
    {
        $inheritance = new Inheritance($path);
        $keys = [];
        foreach (SlotKind::cases() as $kind) {
            $text = $inheritance->effective($kind)?->text;
            if ($text !== null) {
                array_push($keys, ...Chunks::of($this->reader->read($text))->keys());
            }
        }

        return array_values(array_intersect($this->plan->keys(), $keys));
    }
}
