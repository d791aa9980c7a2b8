<?php

namespace App\Changes;

use App\Accounts\SampleClick;
use App\Accounts\Show;
use App\Models\Node;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Compile\BySafety;
use Vestigon\Core\Compile\Compiled;
use Vestigon\Core\Compile\Decided;
use Vestigon\Core\Compile\Progress;
use Vestigon\Core\Compile\Unmet;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Proof\State;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Trace\Route;

/**
 * Tells what a change does to an account, or to a piece of it: counts, samples before and after, what it overrides and
 * what it can't give. What is told of pieces is joined by ToldStory.
 */
final readonly class Story
{
    /** @var array<int, true> the nodes that are written to, by object */
    private array $touched;

    /**
     * @param list<Write> $above what is written on elements above the piece, and counted with those
     * @param bool $hand a person chose the texts: samples show what they touch, proven or not
     */
    public function __construct(
        private CoreAccount $before,
        private CoreAccount $after,
        private Plan $plan,
        private Compiled $compiled,
        array $above = [],
        private bool $hand = false,
    ) {
        $this->touched = array_fill_keys(
            array_map(
                static fn (Write $w): int => spl_object_id($before->nodes[$w->node]),
                [...$above, ...$compiled->writes],
            ),
            true,
        );
    }

    public function tell(Progress $progress = new Progress()): ToldStory
    {
        $progress->step('counting what becomes of every ad');
        $states = ['before' => self::none(), 'after' => self::none()];
        $was = new Survey($this->before, $this->plan);
        $will = new Survey($this->after, $this->plan);
        $picked = $above = [];
        foreach ($this->before->adNodes() as $id => $ad) {
            $parent = $this->before->parents[$id] ?? null;
            $above[$parent] ??= $this->above((string) $parent);
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
                count($picked[$type] ?? []) < ToldStory::SAMPLES_PER_TYPE
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

        return new ToldStory(
            $states,
            array_map(fn (array $ids): array => array_map($this->sample(...), $ids), $picked),
            $this->grouped($this->compiled->unmet),
            $this->grouped($this->compiled->kept),
            count($this->compiled->overridden),
            ...self::counts($this->compiled->writes, $this->before->dialect),
        );
    }

    /** What is told of writes that were decided for elements above the pieces. */
    public static function ofDecided(Decided $decided, CoreAccount $wide, Plan $plan): ToldStory
    {
        $story = new self($wide, $wide, $plan, new Compiled([], [], [], []));

        return new ToldStory(
            ['before' => self::none(), 'after' => self::none()],
            [],
            $story->grouped($decided->unmet),
            [],
            count($decided->overridden),
            ...self::counts($decided->writes, $wide->dialect),
        );
    }

    /**
     * @param list<Write> $writes
     * @return array{
     *     writes: int, customs: int, names: int, reviewed: int,
     *     switches: list<array{setting: string, before: string, after: string}>,
     * }
     */
    private static function counts(array $writes, Dialect $dialect): array
    {
        $many = static fn (\Closure $is): int => count(array_filter($writes, $is));
        $reviewed = array_column(BySafety::reviewed($writes, $dialect), null, 'node');

        return [
            'writes' => count($writes),
            'customs' => $many(static fn (Write $w): bool => $w->custom !== null),
            'names' => $many(static fn (Write $w): bool => $w->isName()),
            'reviewed' => count($reviewed),
            'switches' => array_values(
                array_map(
                    static fn (Write $w): array => self::switched($w, $dialect),
                    array_filter($writes, static fn (Write $w): bool => $w->setting !== null),
                ),
            ),
        ];
    }

    /**
     * @return array{setting: string, before: string, after: string} what it is, for all ads of the account: where
     *     nobody has switched it, by the platform
     */
    private static function switched(Write $write, Dialect $dialect): array
    {
        $setting = $write->setting ?? throw new \LogicException('it is one that switches');
        $default = (string) $setting->default($dialect);

        return [
            'setting' => $setting->value,
            'before' => $write->before ?? $default,
            'after' => $write->after ?? $default,
        ];
    }

    /**
     * @return array{type: string, moves: bool} of what stands above ads: its campaign type; does any write touch it
     */
    private function above(string $parent): array
    {
        $path = $this->before->pathTo($parent);

        return [
            'type' => $path->campaignType() ?? '',
            'moves' => array_filter($path->nodes, fn ($n): bool => isset($this->touched[spl_object_id($n)])) !== [],
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
     * @return array<string, array{key: string, reason: string, count: int, examples: list<string>}> one entry for
     *     each key and reason, with how many nodes and a few of their names
     */
    private function grouped(array $list): array
    {
        $groups = [];
        foreach ($list as $unmet) {
            $group = &$groups["{$unmet->key}\n{$unmet->reason}"];
            $group ??= ['key' => $unmet->key, 'reason' => $unmet->reason, 'count' => 0, 'examples' => []];
            $group['count']++;
            $name = $this->before->nodes[$unmet->node]->name;
            if (count($group['examples']) < ToldStory::EXAMPLES && ! in_array($name, $group['examples'], true)) {
                $group['examples'][] = $name;
            }
            unset($group);
        }

        return $groups;
    }

    /** @return array<string, int> */
    private static function none(): array
    {
        return array_fill_keys(array_map(static fn (State $s): string => $s->value, State::cases()), 0);
    }
}
