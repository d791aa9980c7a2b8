<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Inherit;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Choice;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Template\Template;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Url\Encoding;
use Vestigon\Core\Url\Query;

/**
 * The texts of a node that could give one key to an ad: in each slot, with each separator, by the platform's tokens or
 * written out.
 */
final class Candidates
{
    private readonly TemplateReader $reader;

    /** @var array<string, Truth> by lane */
    private array $truths = [];

    public function __construct(private readonly Dialect $dialect, private readonly Plan $plan)
    {
        $this->reader = new TemplateReader($dialect);
    }

    /**
     * @param Path $path to an ad below the node, or the node itself
     * @return iterable<Node> the node as it might be: with the key in one of its slots, and, where it is in others of
     *     its texts, without it there
     */
    public function for(Node $node, Path $path, string $key): iterable
    {
        $lane = $this->plan->lane($path);
        $truth = $this->truths[$lane->id] ??= Truth::of(
            $this->plan,
            $this->dialect,
            $lane,
            static fn (): bool => false,
        );
        $choice = $truth->choices[$key] ?? null;
        if ($choice === null) {
            if ($key === $this->dialect->clickId?->parameter) {
                foreach ($this->joinedOtherwise($node, $path) as $joined) {
                    yield $joined;
                    yield from $this->withoutOne($joined, $this->plan->in($lane->variant)->keys());
                }
            }

            return;
        }
        $bare = $this->without($node, $key);
        $bare = $this->fits($bare, $node) ? $bare : $node;
        foreach ($bare->slots === $node->slots ? [$node] : [$node, $bare] as $base) {
            foreach ([SlotKind::Landing, SlotKind::Suffix, SlotKind::Template] as $kind) {
                foreach ($this->texts($kind, $base, $path, $key, $choice) as $text) {
                    yield $base->withSlot($kind, $text);
                }
            }
        }
        if ($bare->slots !== $node->slots) {
            yield $bare;
        }
    }

    /**
     * What the platform adds before a text decides whether that begins with `?` or goes on with `&`.
     *
     * @return iterable<Node> the node with one of those two in place of the other
     */
    private function joinedOtherwise(Node $node, Path $path): iterable
    {
        foreach (SlotKind::cases() as $kind) {
            if ($this->dialect->slot($kind)?->countsAt($node->level, $path->campaignType()) !== true) {
                continue;
            }
            $bases = $this->bases($kind, $node, $path);
            $text = $bases === [] ? '' : $bases[count($bases) - 1];
            foreach (['?' => '&', '&' => '?'] as $mark => $other) {
                for ($at = strpos($text, $mark); $at !== false; $at = strpos($text, $mark, $at + 1)) {
                    $joined = $node->withSlot($kind, substr_replace($text, $other, $at, 1));
                    if (
                        ($other === '&' || ! str_contains(substr($text, 0, $at), '?'))
                        && $this->fits($joined, $node)
                    ) {
                        yield $joined;
                    }
                }
            }
        }
    }

    /**
     * @param list<string> $keys
     * @return iterable<Node> the node without one of the keys, where it says it
     */
    private function withoutOne(Node $node, array $keys): iterable
    {
        foreach ($keys as $key) {
            $without = $this->without($node, $key);
            if ($without->slots !== $node->slots && $this->fits($without, $node)) {
                yield $without;
            }
        }
    }

    /** Does the platform take each text of the node that is another than before? */
    public function fits(Node $node, Node $before): bool
    {
        foreach (SlotKind::cases() as $kind) {
            $text = $node->slots[$kind->value] ?? '';
            if (
                $text !== ($before->slots[$kind->value] ?? '')
                && mb_strlen($text) > ($this->dialect->slot($kind)->maxLength ?? PHP_INT_MAX)
            ) {
                return false;
            }
        }

        return true;
    }

    /** @return iterable<string> */
    private function texts(SlotKind $kind, Node $node, Path $path, string $key, Choice $choice): iterable
    {
        $slot = $this->dialect->slot($kind);
        if ($slot === null || ! $slot->countsAt($node->level, $path->campaignType())) {
            return;
        }
        $isFilled = $this->fills($kind);
        $values = array_unique([$this->value($choice, $path, $isFilled), $this->value($choice, $path, false)]);
        foreach ($this->bases($kind, $node, $path) as $base) {
            $query = $this->read($isFilled, $base)->query($kind === SlotKind::Suffix);
            $rest = $this->read($isFilled, $query->without([$key]));
            foreach ($values as $value) {
                if ($value === null) {
                    continue;
                }
                $isSuffix = $kind === SlotKind::Suffix;
                $behind = $isSuffix
                    ? ltrim(Query::join("?{$base}", "{$key}={$value}"), '?')
                    : Query::join($base, "{$key}={$value}");
                foreach (
                    array_unique([
                        $query->with($key, $value),
                        $behind,
                        ...$isSuffix ? [] : ["{$base}&{$key}={$value}"],
                    ]) as $text
                ) {
                    if (
                        mb_strlen($text) <= ($slot->maxLength ?? PHP_INT_MAX)
                        && $this->read($isFilled, $text)->holdsTokensOf($rest)
                    ) {
                        yield $text;
                    }
                }
            }
        }
    }

    /**
     * @return list<string> the texts to go on from, to be written at the node: what counts there, and before that,
     *     where it is said above, none of it: what nobody gets today can be left out
     */
    private function bases(SlotKind $kind, Node $node, Path $path): array
    {
        $own = $node->slot($kind);
        if (
            $own !== null
            || ($kind === SlotKind::Suffix && $this->dialect->slot($kind)?->inherit === Inherit::Gather)
        ) {
            return [$own ?? ''];
        }
        $raw = $this->dialect->rawLanding();
        $none = match ($kind) {
            SlotKind::Suffix => [''],
            SlotKind::Template => $raw === null ? [] : [$this->dialect->written($raw->name)],
            SlotKind::Landing => [],
        };
        $depth = $this->dialect->level($node->level)->depth ?? 0;
        $above = array_slice($path->nodes, 0, $depth);
        $inherited =
            $above === [] ? null : (new Inheritance(new Path($this->dialect, $above)))->effective($kind)?->text;
        if ($inherited === null) {
            return $none;
        }
        $type = $depth < ($path->campaignDepth() ?? 0) ? null : $path->campaignType();

        return array_values(
            array_unique([
                ...$none,
                (string) $this->read($this->fills($kind), $inherited)->withoutDead($kind, $type),
            ]),
        );
    }

    /** @return string|null null: it is known at the click only */
    private function value(Choice $choice, Path $path, bool $isFilled): ?string
    {
        $value = '';
        $fields = $path->fields(false);
        foreach ($choice->parts as $part) {
            $means = $part->field === null ? null : $choice->means[$part->field];
            $token = $isFilled ? $means?->token : null;
            if ($means !== null && $token === null && $means->owner === null && ! isset($fields[$part->field])) {
                return null;
            }
            $text = match (true) {
                $token !== null => $this->dialect->written($token->name),
                $part->field !== null => Encoding::encode(
                    $choice->fieldValue($part->field, $fields),
                    1,
                    $this->dialect->assembly->plusForSpace,
                ),
                default => Encoding::encode((string) $part->text, 1, $this->dialect->assembly->plusForSpace),
            };
            $value .= $text;
        }

        return $value;
    }

    /** A node that does not say a key. */
    public function without(Node $node, string $key): Node
    {
        foreach (SlotKind::cases() as $kind) {
            $text = $node->slot($kind);
            if ($text !== null) {
                $clean = $this->read($this->fills($kind), $text)
                    ->query($kind === SlotKind::Suffix)
                    ->without([$key]);
                $node = $clean === $text ? $node : $node->withSlot($kind, $clean === '' ? null : $clean);
            }
        }

        return $node;
    }

    /** Are tokens filled in there? */
    private function fills(SlotKind $kind): bool
    {
        return $this->dialect->syntax !== null
            && ($kind !== SlotKind::Landing || ($this->dialect->slot($kind)->tokens ?? false));
    }

    private function read(bool $isFilled, string $text): Template
    {
        return $isFilled ? $this->reader->read($text) : Template::literal($text);
    }
}
