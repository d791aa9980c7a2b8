<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Dialect\TokenKind;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Shape;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Template\Part\CatalogueToken;
use Vestigon\Core\Template\Template;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Url\Query;

/** One way of bringing an account in line, worked out from the account downwards: every node gets the text that its ads should have, and only where they do not have it yet. */
final class Draft
{
    /** @var list<Write> */
    private array $writes = [];

    /** @var list<Unmet> */
    private array $unmet = [];

    /** @var list<Unmet> */
    private array $kept = [];

    /** @var list<Write> */
    private array $overridden = [];

    /** @var array<string, Node> the nodes as they will be */
    private array $after = [];

    /** @var array<string, Truth> by campaign type */
    private array $truths = [];

    private readonly TemplateReader $reader;

    private readonly PlanText $text;

    private readonly ?string $mainType;

    public function __construct(private readonly Account $account, private readonly Plan $plan, private readonly Existing $existing, private readonly Carrier $carrier)
    {
        $this->reader = new TemplateReader($account->dialect);
        $types = $this->typesByCampaigns();
        $this->mainType = array_key_first($types);
        $truths = array_map(fn (string $type): Truth => $this->truth($type), array_keys($types));
        $names = CustomNames::choose($account, $truths, $plan->keys());
        $this->text = new PlanText($account->dialect, array_map(static fn (array $n): string => $n[0], $names));
        $this->writeCustoms(array_values($names));
    }

    public function compiled(): Compiled
    {
        foreach ($this->topDown() as $key) {
            $this->bring($key);
        }
        $this->verify();

        return new Compiled($this->writes, $this->unmet, $this->kept, $this->overridden);
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

    /** @return array<string, int> campaign types, the one with most campaigns first: its text goes on the widest level */
    private function typesByCampaigns(): array
    {
        $level = $this->account->dialect->levelOf(Role::Campaign)?->id;
        $types = [];
        foreach ($this->account->nodes as $node) {
            if ($node->level === $level && $node->type !== null) {
                $types[$node->type] = ($types[$node->type] ?? 0) + 1;
            }
        }
        arsort($types);

        return $types;
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
                    $this->unmet[] = new Unmet((string) $key, $field, "{$node->name}: {$why}");
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
        $node = $before->last();
        $type = $before->campaignType() ?? $this->mainType;
        $dialect = $this->account->dialect;
        $isAd = $dialect->level($node->level)?->role === Role::Ad;
        $keys = $this->plan->keys();
        $keep = $this->existing === Existing::Keep ? $this->sentAlready($before) : [];
        $drop = $this->existing === Existing::Replace ? $keys : [];
        $clean = fn (SlotKind $kind, ?string $text): string => $text === null ? '' : Chunks::of($this->reader->read($text))->without($drop, $kind === SlotKind::Suffix);

        $inheritance = new Inheritance($before);
        $template = $clean(SlotKind::Template, $inheritance->effective(SlotKind::Template)?->text);
        $suffix = ltrim($clean(SlotKind::Suffix, $inheritance->effective(SlotKind::Suffix)?->text), '?&');
        $ours = $this->text->query($this->truth($type), $keep, $before);

        if ($this->carrier === Carrier::Template && $this->canCarry($template, $type)) {
            $template = Query::join($template === '' ? $this->rawLanding() : $template, $ours);
        } else {
            $suffix = ltrim(Query::join('?'.$suffix, $ours), '?');
        }
        $this->set($key, SlotKind::Suffix, $suffix, $before);
        $this->set($key, SlotKind::Template, $template, $before);
        $landing = $node->slot(SlotKind::Landing);
        if ($isAd && $landing !== null) {
            $this->set($key, SlotKind::Landing, Chunks::of(Template::literal($landing))->without($drop, false), $before);
        }
        if ($isAd) {
            foreach ($keep as $kept) {
                $this->kept[] = new Unmet($key, $kept, 'is sent already');
            }
        }
    }

    /** Gives a node's slot its text, if what it inherits and has does not come to the same. */
    private function set(string $key, SlotKind $kind, string $wanted, Path $before): void
    {
        $dialect = $this->account->dialect;
        $node = $this->after[$key] ?? $before->last();
        $slot = $dialect->slot($kind);
        if ($slot === null || ! $slot->countsAt($node->level, $before->campaignType())) {
            return;
        }
        $own = $before->last()->slot($kind);
        $above = array_map(fn (string $k): Node => $this->after[$k] ?? $this->account->nodes[$k], array_slice($this->account->keysTo($key), 0, -1));
        $inherited = (new Inheritance(new Path($dialect, [...$above, $node->withSlot($kind, null)])))->effective($kind)->text ?? '';
        $bare = $kind === SlotKind::Template ? $this->rawLanding() : ''; // the landing URL alone is what no template gives
        if (($wanted === '' || $wanted === $bare) && $inherited === '') {
            $wanted = $own === $bare ? $bare : '';
        } elseif ($wanted === '') {
            $wanted = $bare;
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

    /** A template can carry the plan where the campaign type reads it and it begins with the landing URL itself. */
    private function canCarry(string $template, ?string $type): bool
    {
        $slot = $this->account->dialect->slot(SlotKind::Template);
        if ($slot === null || ($type !== null && in_array($type, $slot->ignoredFor, true))) {
            return false;
        }
        if ($template === '') {
            return $this->rawLanding() !== '';
        }
        $first = $this->reader->read($template)->parts[0] ?? null;

        return $first instanceof CatalogueToken && $first->token->kind === TokenKind::Landing && in_array($first->token->encode, [null, 0], true);
    }

    private function rawLanding(): string
    {
        $syntax = $this->account->dialect->syntax;
        foreach ($this->account->dialect->tokens as $token) {
            if ($syntax !== null && $token->kind === TokenKind::Landing && in_array($token->encode, [null, 0], true)) {
                return $syntax->open.$token->name.$syntax->close;
            }
        }

        return '';
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

    /** Holds the account as it will be against the plan: what is not true then is unmet. */
    private function verify(): void
    {
        $account = $this->account->with($this->after);
        $prover = Prover::for($account, $this->plan);
        $kept = [];
        foreach ($this->kept as $k) {
            $kept["{$k->node} {$k->key}"] = true;
        }
        foreach ($account->ads() as $key => $path) {
            foreach ($prover->verdict($path)->counterexamples as $fault) {
                if (! isset($kept["{$key} {$fault->key}"]) || $fault->code !== 'wrong-value') {
                    $this->unmet[] = new Unmet($key, $fault->key, $fault->reason);
                }
            }
            foreach ($prover->truth($path->campaignType())->unmet as $missing => $reason) {
                $this->unmet[] = new Unmet($key, (string) $missing, $reason);
            }
        }
    }
}
