<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Role;

/** All that stands above the ads of one parent. */
final readonly class Above
{
    public ?string $type;

    /** @var array<string, string> what the platform knows of them, by field */
    public array $sent;

    /** @var array<string, string> what is true of them, by field */
    public array $known;

    /** Who of them says something, and for which campaign type: ads below with the same texts of their own are alike. */
    public string $texts;

    public string $campaign;

    /** Who of them is sent under another name than it has. */
    public string $frozen;

    public function __construct(public Path $path)
    {
        $this->type = $path->campaignType();
        $this->sent = $path->fields($path->dialect->namesFreeze);
        $this->known = $path->fields(false);
        $speak = array_filter($path->nodes, static fn (Node $n): bool => $n->slots !== [] || $n->custom !== []);
        $this->texts = "{$this->type}\0".implode("\0", array_map(self::id(...), $speak));
        $this->campaign = self::id($path->withRole(Role::Campaign) ?? $path->nodes[0]);
        $frozen = $path->dialect->namesFreeze ? array_filter($path->nodes, static fn (Node $n): bool => ($n->publishedName ?? $n->name) !== $n->name) : [];
        $this->frozen = implode("\0", array_map(self::id(...), $frozen));
    }

    /** @return array<string, string> what is true of an ad below, by field */
    public function knownOf(Node $ad): array
    {
        return $this->known + $this->own($ad, $ad->name);
    }

    /** @return array<string, string> what the platform knows of an ad below, by field */
    public function sentOf(Node $ad): array
    {
        return $this->sent + $this->own($ad, $this->path->dialect->namesFreeze ? $ad->publishedName ?? $ad->name : $ad->name);
    }

    public function pathTo(Node $ad): Path
    {
        return new Path($this->path->dialect, [...$this->path->nodes, $ad]);
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
