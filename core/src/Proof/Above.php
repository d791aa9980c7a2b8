<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Plan\Lane;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Template\Distinct;

/** All that stands above the ads of one parent. */
final class Above
{
    public readonly Lane $lane;

    /** All that they say. */
    public readonly string $said;

    /** @var array<string, string> what the platform knows of them, by field */
    public readonly array $sent;

    /** @var array<string, string> what is true of them, by field */
    public readonly array $known;

    /** Who of them says something, and in which lane: of ads below with the same texts the same is found. */
    public readonly string $texts;

    /** What they say on which level, and in which lane: of ads below with the same texts the same is true. */
    public readonly string $says;

    /** Which campaign it is, and who is sent under another name than it has: some findings are about that. */
    public readonly string $names;

    /** @var array<string, string> how what stands above looks, by the fields that were asked for; see looks() */
    public array $looks = [];

    /** @var list<Node> */
    private readonly array $nodes;

    /** @param Path|null $path null: the ads stand alone */
    public function __construct(private readonly Dialect $dialect, ?Path $path, ?Plan $plan = null)
    {
        $this->nodes = $path->nodes ?? [];
        $this->lane =
            $path === null || $plan === null ? new Lane($path?->campaignType()) : $plan->lane($path);
        $this->sent = $path?->fields($dialect->namesFreeze) ?? [];
        $this->known = $dialect->namesFreeze ? $path?->fields(false) ?? [] : $this->sent;
        $speak = array_filter($this->nodes, static fn (Node $n): bool => $n->slots !== [] || $n->custom !== []);
        $this->said = implode('', array_map(static fn (Node $n): string => $n->saidInAll(), $this->nodes));
        $this->texts = Distinct::of($this->lane->id, ...array_map(self::id(...), array_values($speak)));
        $says = static fn (Node $n): string => Distinct::of($n->level, $n->saidInAll());
        $this->says = Distinct::of($this->lane->id, ...array_map($says, array_values($speak)));
        $frozen = $dialect->namesFreeze
            ? array_filter($this->nodes, static fn (Node $n): bool => ($n->publishedName ?? $n->name) !== $n->name)
            : [];
        $named = $path?->withRole(Role::Campaign) ?? ($this->nodes[0] ?? null);
        $this->names = Distinct::of(
            $named === null ? null : self::id($named),
            ...array_map(self::id(...), array_values($frozen)),
        );
    }

    /** @return array<string, string> what is true of an ad below, by field */
    public function knownOf(Node $ad): array
    {
        return $this->known + $this->own($ad, $ad->name);
    }

    /** @return array<string, string> what the platform knows of an ad below, by field */
    public function sentOf(Node $ad): array
    {
        return $this->sent
            + $this->own($ad, $this->dialect->namesFreeze ? $ad->publishedName ?? $ad->name : $ad->name);
    }

    /** Is it the very nodes of a path that stand above? */
    public function isOf(Path $path): bool
    {
        return $this->nodes === $path->nodes;
    }

    public function pathTo(Node $ad): Path
    {
        return new Path($this->dialect, [...$this->nodes, $ad]);
    }

    /** How what stands above looks, for some fields; computed once for each choice of fields. */
    public function looks(Looks $looks): string
    {
        return $this->looks[$looks->id] ??= $looks->ofAbove($this->sent, $this->known);
    }

    /** @return array<string, string> */
    private function own(Node $ad, string $name): array
    {
        $fields = ['ad.id' => $ad->id, 'ad.name' => $name];
        foreach ($ad->attributes as $attribute => $value) {
            $fields["ad.{$attribute}"] = $value;
        }

        return $fields;
    }

    private static function id(Node $node): string
    {
        return "{$node->level} {$node->id}";
    }
}
