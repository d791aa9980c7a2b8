<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\Layer;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Template\Element;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Settings;
use Vestigon\Core\Trace\SlotTemplate;
use Vestigon\Core\Trace\Texts;
use Vestigon\Core\Url\Address;

/** An ad, all above it, and the texts that count for it. */
final readonly class Standing
{
    public Texts $texts;

    /** @var list<Layer> every text on the path, slot by slot, widest first */
    public array $layers;

    /** @param list<Hop> $hops click trackers that are known */
    public function __construct(
        public Path $path,
        public Settings $settings,
        public TemplateReader $reader,
        public ?Plan $plan = null,
        public Campaigns $campaigns = new Campaigns(),
        public array $hops = [],
    ) {
        $this->texts = Texts::of($path, $reader);
        $inheritance = new Inheritance($path);
        $this->layers = array_merge(...array_map($inheritance->layers(...), SlotKind::cases()));
    }

    /** @return list<SlotTemplate> the texts that count, read */
    public function counting(): array
    {
        return array_values(
            array_filter(
                [$this->texts->template, $this->texts->suffix, $this->texts->landing],
                static fn (?SlotTemplate $s): bool => $s !== null,
            ),
        );
    }

    /**
     * Every part of the texts that count, with where it stands.
     *
     * @return iterable<array{Element, Node, SlotTemplate}>
     */
    public function parts(): iterable
    {
        foreach ($this->counting() as $slot) {
            foreach ($slot->template->walk() as $part) {
                yield [$part, $slot->slot->ownerAt($part->offset), $slot];
            }
        }
    }

    /** @return Hop|null the known tracker whose link the landing URL is */
    public function hop(): ?Hop
    {
        $host = Address::host($this->texts->landing->slot->text ?? '');
        foreach ($this->hops as $hop) {
            if ($hop->host === $host) {
                return $hop;
            }
        }

        return null;
    }

    public function levelLabel(Node $node): string
    {
        return mb_strtolower($this->path->dialect->level($node->level)->label ?? $node->level);
    }
}
