<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Findings\Path\FrozenName;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Settings;
use Vestigon\Core\Trace\Trace;

/** Finds what is wrong with an ad's texts and with one click of it. */
final class Inspector
{
    /** A text that has more of the same has had enough said about it. */
    private const MOST_OF_A_RULE = 25;

    /** @var array<string, list<Finding>> texts that were looked at before */
    private array $seen = [];

    /** @var array<string, Truth> by lane */
    private array $truths = [];

    public function __construct(
        private readonly RuleBook $rules,
        private readonly TemplateReader $reader,
        private readonly ?Plan $plan = null,
    ) {}

    /**
     * @param list<Hop> $hops click trackers that are known
     * @return list<Finding> each once, the worst first
     */
    public function path(
        Path $path,
        Settings $settings,
        array $hops = [],
        Campaigns $campaigns = new Campaigns(),
    ): array {
        return self::sorted([
            ...$this->texts($path),
            ...$this->standing(new Standing($path, $settings, $this->reader, $this->plan, $campaigns, $hops)),
        ]);
    }

    /** @return list<Finding> what is wrong with each text on the path by itself */
    public function texts(Path $path): array
    {
        $found = [];
        foreach ($path->nodes as $node) {
            array_push($found, ...$this->node($node, $path));
        }

        return $found;
    }

    /**
     * What is wrong with the texts of one node.
     *
     * @return list<Finding>
     */
    public function node(Node $node, Path $path): array
    {
        $type = $node->slots === [] && $node->custom === [] ? null : $path->campaignType();
        $above = $path->dialect->level($node->level)->depth ?? 0;
        $campaign = $path->campaignDepth();
        $type = $campaign !== null && $above >= $campaign ? $type : null;
        $found = [];
        foreach (SlotKind::cases() as $kind) {
            $text = isset($node->slots[$kind->value]) ? $node->slot($kind) : null;
            if ($text !== null) {
                foreach ($this->text($path, $kind, null, $node->level, $type, $text) as $finding) {
                    $found[] = $finding->on($node);
                }
            }
        }
        foreach ($node->custom as $name => $text) {
            foreach ($this->text($path, null, (string) $name, $node->level, $type, $text) as $finding) {
                $found[] = $finding->on($node);
            }
        }

        return $found;
    }

    /** @return list<Finding> what is wrong with the texts taken together */
    public function standing(Standing $standing): array
    {
        $found = [];
        foreach ($this->rules->paths as $rule) {
            array_push($found, ...$rule->check($standing));
        }

        return $found;
    }

    /** @return iterable<Finding> what is wrong with names that the platform has frozen */
    public function frozen(Standing $standing): iterable
    {
        return (new FrozenName())->check($standing);
    }

    /**
     * What is wrong with one click.
     *
     * @param array<string, string> $context
     * @param string|null $landing the landing page: where the landing URL alone leads
     * @return list<Finding>
     */
    public function click(Path $path, Trace $trace, array $context, Settings $settings, ?string $landing): array
    {
        $dialect = $path->dialect;
        $fields = $context + $path->fields(false);
        $truth = $this->plan === null ? null : $this->truth($this->plan, $path);
        $hasClickId = $dialect->clickId?->isOn($settings->clickId) || $this->plan?->clickIdRequired;
        $click = new Click(
            $dialect,
            $trace,
            $fields + $path->fields(true),
            $truth?->values($fields) ?? [],
            $truth === null ? [] : array_intersect_key($truth->unmet, array_flip($truth->required)),
            Keys::of($this->plan),
            $this->plan?->in($this->plan->lane($path)->variant)->keys() ?? [],
            $hasClickId ? $dialect->clickId?->parameter : null,
            $landing,
        );
        $found = [];
        foreach ($this->rules->clicks as $rule) {
            foreach ($rule->check($click) as $flaw) {
                $found[] = $flaw->finding();
            }
        }

        return $found;
    }

    private function truth(Plan $plan, Path $path): Truth
    {
        $lane = $plan->lane($path);

        return $this->truths[$lane->id] ??= Truth::of($plan, $path->dialect, $lane, static fn (): bool => false);
    }

    /**
     * @param list<Finding> $findings
     * @return list<Finding> each once, the worst first
     */
    public static function sorted(array $findings): array
    {
        $unique = [];
        foreach ($findings as $finding) {
            $unique[$finding->id()] ??= $finding;
        }
        $unique = array_values($unique);
        usort($unique, static fn (Finding $a, Finding $b): int => $a->severity->rank() <=> $b->severity->rank());

        return $unique;
    }

    /** @return list<Finding> without the node */
    private function text(
        Path $path,
        ?SlotKind $kind,
        ?string $custom,
        string $level,
        ?string $type,
        string $text,
    ): array {
        $key = "{$kind?->value} {$custom} {$level} {$type} {$text}";
        if (isset($this->seen[$key])) {
            return $this->seen[$key];
        }
        $spot =
            $kind !== null
                ? Spot::slot($path->dialect, $kind, $level, $type, $text, $this->reader, $this->plan)
                : Spot::custom(
                    $path->dialect,
                    (string) $custom,
                    $level,
                    $type,
                    $text,
                    $this->reader,
                    $this->plan,
                );
        $found = [];
        foreach ($this->rules->texts as $rule) {
            $of = 0;
            foreach ($rule->check($spot) as $finding) {
                $found[] = $finding;
                if (++$of === self::MOST_OF_A_RULE) {
                    break;
                }
            }
        }
        if (count($this->seen) > 8192) {
            $this->seen = [];
        }

        return $this->seen[$key] = $found;
    }
}
