<?php

namespace App\Changes;

use App\Accounts\SampleClick;
use App\Accounts\Show;
use App\Models\Node;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Compile\BySafety;
use Vestigon\Core\Compile\Compiled;
use Vestigon\Core\Compile\Progress;
use Vestigon\Core\Compile\Unmet;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Proof\State;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Trace\Route;

/** Tells what a change does: counts, samples before and after, what it overrides and what it can't give. */
final readonly class Story
{
    private const SAMPLES_PER_TYPE = 2;

    private const EXAMPLES = 20;

    /** @var array<int, true> the nodes that are written to, by object */
    private array $touched;

    /** @var array<string, true> the nodes that the change is about, with all below them; empty: all */
    private array $scope;

    /**
     * @param bool $hand a person chose the texts: samples show what they touch, proven or not
     * @param list<int>|null $scope
     */
    public function __construct(
        private CoreAccount $before,
        private CoreAccount $after,
        private Plan $plan,
        private Compiled $compiled,
        private bool $hand = false,
        ?array $scope = null,
    ) {
        $this->scope = array_fill_keys(array_map(strval(...), $scope ?? []), true);
        $this->touched = array_fill_keys(
            array_map(fn (Write $w): int => spl_object_id($before->nodes[$w->node]), $compiled->writes),
            true,
        );
    }

    /**
     * @return array<string, mixed>
     */
    public function tell(Progress $progress = new Progress()): array
    {
        $progress->step('counting what becomes of every ad');
        $states = ['before' => self::none(), 'after' => self::none()];
        $was = new Survey($this->before, $this->plan);
        $will = new Survey($this->after, $this->plan);
        $picked = [];
        $above = [];
        foreach ($this->before->adNodes() as $id => $ad) {
            $parent = $this->before->parents[$id] ?? null;
            $above[$parent] ??= $this->above((string) $parent);
            if (! $above[$parent]['inside'] && ! isset($this->scope[$id])) {
                continue;
            }
            $old =
                $this->compiled->was[$id]
                ?? ($was->ad($ad, $parent) ?? throw new \LogicException('there is a plan'));
            $new =
                $this->compiled->will[$id]
                ?? ($will->ad($this->after->nodes[$id], $parent) ?? throw new \LogicException('there is a plan'));
            $states['before'][$old->state->value]++;
            $states['after'][$new->state->value]++;
            $type = $above[$parent]['type'];
            if (
                count($picked[$type] ?? []) < self::SAMPLES_PER_TYPE
                && ($this->hand
                    ? $above[$parent]['moves'] || isset($this->touched[spl_object_id($ad)])
                    : $old->state !== State::Proven)
            ) {
                $why = implode(
                    ' ',
                    array_map(static fn ($c): string => "{$c->code} {$c->key}", $old->counterexamples),
                );
                $picked[$type][$why] ??= $id;
            }
            $progress->ad();
        }
        $ids = array_merge(...array_map('array_values', array_values($picked)));

        return [
            'ads' => array_sum($states['before']),
            'states' => $states,
            'writes' => count($this->compiled->writes),
            'customs' => count(
                array_filter($this->compiled->writes, static fn (Write $w): bool => $w->custom !== null),
            ),
            'names' => count(array_filter($this->compiled->writes, static fn (Write $w): bool => $w->isName())),
            'namesFreeze' => $this->before->dialect->namesFreeze,
            'switches' => array_values(
                array_map(
                    $this->switched(...),
                    array_filter($this->compiled->writes, static fn (Write $w): bool => $w->setting !== null),
                ),
            ),
            'samples' => array_map($this->sample(...), $ids),
            'unmet' => $this->grouped($this->compiled->unmet),
            'kept' => $this->grouped($this->compiled->kept),
            'overridden' => count($this->compiled->overridden),
            'reviewed' => count(
                array_unique(
                    array_map(
                        static fn (Write $w): string => $w->node,
                        BySafety::reviewed($this->compiled->writes, $this->before->dialect),
                    ),
                ),
            ),
        ];
    }

    /**
     * @return array{setting: string, before: string, after: string} what it is, for all ads of the account: where
     *     nobody has switched it, by the platform
     */
    private function switched(Write $write): array
    {
        $setting = $write->setting ?? throw new \LogicException('it is one that switches');
        $default = (string) $setting->default($this->before->dialect);

        return [
            'setting' => $setting->value,
            'before' => $write->before ?? $default,
            'after' => $write->after ?? $default,
        ];
    }

    /**
     * @return array{type: string, moves: bool, inside: bool} of what stands above ads: its campaign type; does any
     *     write touch it; is it what the change is about
     */
    private function above(string $parent): array
    {
        $path = $this->before->pathTo($parent);

        return [
            'type' => $path->campaignType() ?? '',
            'moves' => array_filter($path->nodes, fn ($n): bool => isset($this->touched[spl_object_id($n)])) !== [],
            'inside' => $this->scope === []
                || array_filter($this->before->keysTo($parent), fn (string $k): bool => isset($this->scope[$k]))
                    !== [],
        ];
    }

    /** @return array<string, mixed> */
    private function sample(string|int $id): array
    {
        $id = (string) $id;
        $path = $this->before->pathTo($id);
        $group = Node::query()->find($this->before->parents[$id]);
        $context = SampleClick::of($path, $group->keywords ?? []);

        return [
            'node' => (int) $id,
            'name' => $path->last()->name,
            'where' => Show::where($path),
            'type' => $path->campaignType(),
            'before' => $this->side($path, $this->before, $context),
            'after' => $this->side($this->after->pathTo($id), $this->after, $context),
        ];
    }

    /**
     * @param array<string, string> $context
     * @return array<string, mixed>
     */
    private function side(Path $path, CoreAccount $account, array $context): array
    {
        $trace = Route::once($path, $context, $account->settings, $account->hops);
        $verdict = Prover::for($account, $this->plan)->verdict($path);

        return [
            'ribbon' => Show::ribbon($trace),
            'arrival' => $trace->arrival,
            'state' => $verdict->state->value,
            'faults' => array_map(
                static fn ($c): array => ['key' => $c->key, 'reason' => $c->reason],
                $verdict->counterexamples,
            ),
        ];
    }

    /**
     * @param list<Unmet> $list
     * @return list<array<string, mixed>> one entry for each key and reason, with how many nodes and a few of their
     *     names
     */
    private function grouped(array $list): array
    {
        $groups = [];
        foreach ($list as $unmet) {
            $group = &$groups["{$unmet->key}\n{$unmet->reason}"];
            $group ??= ['key' => $unmet->key, 'reason' => $unmet->reason, 'count' => 0, 'examples' => []];
            $group['count']++;
            if (count($group['examples']) < 3) {
                $group['examples'][] = $this->before->nodes[$unmet->node]->name;
            }
            unset($group);
        }
        usort($groups, static fn (array $a, array $b): int => $b['count'] <=> $a['count']);

        return array_slice($groups, 0, self::EXAMPLES);
    }

    /** @return array<string, int> */
    private static function none(): array
    {
        return array_fill_keys(array_map(static fn (State $s): string => $s->value, State::cases()), 0);
    }
}
