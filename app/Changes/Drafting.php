<?php

namespace App\Changes;

use App\Accounts\Trees;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\ChangeWrite;
use App\Models\Plan as PlanModel;
use App\Sheets\Shape;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Compile\Advice;
use Vestigon\Core\Compile\Advisor;
use Vestigon\Core\Compile\BySafety;
use Vestigon\Core\Compile\Carrier;
use Vestigon\Core\Compile\Compiled;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Existing;
use Vestigon\Core\Compile\Policy;
use Vestigon\Core\Compile\Progress;
use Vestigon\Core\Compile\Staged;
use Vestigon\Core\Compile\Switches;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Plan\Plan;

/** Works a change out: the first samples at once, from a few ads; then all of it. */
final class Drafting
{
    private const FIRST_LOOK_AT = 200;

    private readonly Plan $plan;

    private readonly bool $byHand;

    private readonly Progress $progress;

    public function __construct(private readonly Change $change)
    {
        $this->plan = PlanModel::query()
            ->where(['client_id' => $change->client_id, 'revision' => $change->plan_revision])
            ->firstOrFail()
            ->read();
        $this->byHand = ($change->policy['by'] ?? 'plan') === 'hand';
        $this->progress = new Progress($this->note(...));
    }

    /** @return bool false: it was dropped or begun anew meanwhile */
    public function run(): bool
    {
        gc_disable(); // the core makes no circles: looking for some among a million ads would find none
        try {
            $this->workOut();

            return true;
        } catch (Dropped) {
            return false;
        } finally {
            gc_enable();
        }
    }

    private function workOut(): void
    {
        $this->change->update(['drafted_at' => now()]);
        $this->firstSamples();
        $before = $this->writable(Trees::whole($this->change->account, $this->progress));
        $compiled = $this->compiled($before, $this->progress);
        $after = Write::applied($before, $compiled->writes);
        $story = (new Story($before, $after, $this->plan, $compiled, $this->byHand, $this->change->scope))->tell(
            $this->progress,
        );
        // what is not asked for clicks can't be tried on one ad
        [$staged, $trial] = $this->cameAsSheets()
            ? [Staged::of($compiled->writes, []), null]
            : TrialChoice::of(
                $this->change->account,
                $before,
                $after,
                $compiled->writes,
                $story['samples'],
            );
        $this->keep($staged, [...$story, 'trial' => $trial, 'advice' => null]);
        $this->advise($before, $compiled);
    }

    /** Samples from a few ads, so that there is something to look at while the rest is computed. */
    private function firstSamples(): void
    {
        if ($this->byHand) {
            return;
        }
        $this->progress->step('taking a first look');
        $few = $this->writable(Trees::few($this->change->account, self::FIRST_LOOK_AT, $this->change->scope));
        $compiled = $this->compiled($few, new Progress());
        $story = (new Story(
            $few,
            Write::applied($few, $compiled->writes),
            $this->plan,
            $compiled,
            false,
            $this->change->scope,
        ))->tell();
        $this->change->update(['story' => [...$story, 'trial' => null, 'advice' => [], 'early' => true]]);
    }

    private function compiled(Account $before, Progress $progress): Compiled
    {
        $compiled = $this->byHand
            ? new Compiled($this->chosen($before), [], [], [])
            : Compiler::compile($before, $this->plan, $this->policy(), $progress);

        return $compiled->inOrder(BySafety::ordered($compiled->writes, $before->dialect));
    }

    /** The account, where it came as sheets as far as those can write to it. */
    private function writable(Account $account): Account
    {
        return $this->cameAsSheets() && ! $this->byHand
            ? $account->on(Shape::of($this->change->account)->narrowed())
            : $account;
    }

    private function cameAsSheets(): bool
    {
        return $this->change->account->link->reads_by === 'sheet';
    }

    private function policy(): Policy
    {
        return new Policy(
            Existing::from($this->change->policy['existing'] ?? ''),
            Carrier::from($this->change->policy['carrier'] ?? ''),
            $this->change->scope === null ? null : array_map(strval(...), $this->change->scope),
            $this->cameAsSheets() && ! Shape::of($this->change->account)->switches()
                ? Switches::Leave // the sheets have no column for it
                : Switches::from($this->change->policy['switches'] ?? 'may'),
        );
    }

    /**
     * Says where a small give in the plan would save much. Nobody waits for that: the change can be gone on with
     * meanwhile.
     */
    private function advise(Account $before, Compiled $compiled): void
    {
        $advice = array_map(
            static fn (Advice $a): array => [...$a->toArray(), 'nodes' => count($a->nodes)],
            $this->byHand ? [] : Advisor::advice($before, $this->plan, $compiled, $this->policy()),
        );
        DB::update(
            "update changes set story = json_set(story, '$.advice', json_extract(?, '$')) where id = ? and draft = ?",
            [json_encode($advice, JSON_THROW_ON_ERROR), $this->change->id, $this->change->draft],
        );
    }

    /** The worker that looked for advice has died: there is none, and nobody waits for it. */
    public static function endAdvising(int $change): void
    {
        DB::update(
            "update changes set story = json_set(story, '$.advice', json_array()) where id = ? and "
                ."json_type(json_extract(story, '$.advice')) = 'NULL'",
            [$change],
        );
    }

    /** @return list<Write> the texts that a person chose, with what stands there now */
    private function chosen(Account $before): array
    {
        $writes = [];
        foreach ($this->change->writes()->lazy(1000) as $write) {
            $key = (string) $write->node_id;
            if (! isset($before->nodes[$key])) {
                continue; // it has gone since
            }
            // drafted before, with a trial, a place has several: the last is what was chosen
            $place = "{$key} {$write->kind} {$write->name}";
            $writes[$place] = Place::write($before, $key, $write->kind, $write->name, $write->after);
        }

        return array_values(array_filter($writes, static fn (Write $w): bool => $w->before !== $w->after));
    }

    /** @param array<string, mixed> $story */
    private function keep(Staged $staged, array $story): void
    {
        $this->progress->step('noting the writes');
        DB::transaction(function () use ($staged, $story): void {
            $this->stillWanted();
            $this->change->writes()->delete();
            foreach (array_chunk($staged->writes, 500, true) as $writes) {
                ChangeWrite::query()->insert(
                    array_map(
                        fn (array $s, int $i): array => [
                            'change_id' => $this->change->id,
                            'position' => $i,
                            'stage' => $s[1]->value,
                            'node_id' => (int) $s[0]->node,
                            ...Place::of($s[0]),
                            'before' => $s[0]->before,
                            'after' => $s[0]->after,
                        ],
                        $writes,
                        array_keys($writes),
                    ),
                );
            }
            $this->change->take(Move::Offer, [
                'story' => $story,
                'stage' => $story['trial'] === null ? 'rest' : 'trial',
                'step' => '',
                'through' => 0,
            ]);
        });
    }

    private function note(string $step, int $through): void
    {
        $this->stillWanted();
        $this->change->update(['step' => $step, 'through' => $through]);
    }

    /** @throws Dropped */
    private function stillWanted(): void
    {
        if (
            ! Change::query()
                ->whereKey($this->change->id)
                ->where(['status' => ChangeStatus::Drafting, 'draft' => $this->change->draft])
                ->lockForUpdate()
                ->exists()
        ) {
            throw new Dropped();
        }
    }
}
