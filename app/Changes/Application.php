<?php

namespace App\Changes;

use App\Clicks\TestClick;
use App\Connectors\Connector;
use App\Connectors\PlatformTrouble;
use App\Models\Change;
use App\Models\ChangeWrite;
use App\Models\Plan;
use App\Models\WriteState;

/**
 * Carries a stage of a change out: looks whether anything has moved, writes in batches, reads back and compares,
 * clicks.
 *
 * It can be ended at any moment, by a person or by a power cut, and goes on from there.
 */
final readonly class Application
{
    private const TEST_CLICKS = 5;

    private Batches $batches;

    /** @var list<string> */
    private array $stages;

    public function __construct(private Change $change, private Connector $connector, private Lease $lease)
    {
        $this->stages = $change->stage === 'trial' ? ['trial'] : ['rest', 'after'];
        $this->batches = new Batches($change, $connector, $this->stages);
    }

    /** @throws PlatformTrouble nothing is lost: what was written is noted, the rest waits */
    public function run(): void
    {
        if (! ($this->connector->writesNow() ? $this->send() : $this->handOut())) {
            return;
        }
        if (
            ! $this->lease->extend()
            || ! (new ReadingBack($this->change, $this->batches))->run(
                fn (): bool => $this->lease->progressed() && $this->lease->extend(),
            )
        ) {
            return;
        }
        $this->change->stage === 'trial' ? $this->endTrial() : $this->endRest();
    }

    /** @return bool false: it was ended on the way */
    private function send(): bool
    {
        while (($batch = $this->batches->unanswered()) !== null) {
            if (! $this->lease->extend()) {
                return false;
            }
            $this->batches->send($batch);
            $this->lease->progressed();
        }
        if (! $this->checked()) {
            return false;
        }
        $back = new ReadingBack($this->change, $this->batches);
        while ($this->lease->extend() && ($batch = $this->batches->next()) !== null) {
            $this->batches->send($batch);
            $this->lease->progressed();
            $back->keepUp(count($batch)); // while the platform's limit has us wait
        }

        return true;
    }

    /** Lets the texts go out in a sheet. @return bool true: the platform's answer is here */
    private function handOut(): bool
    {
        if (! $this->checked()) {
            return false;
        }
        $this->change
            ->writes()
            ->reorder()
            ->whereIn('stage', $this->stages)
            ->where('state', WriteState::Waiting)
            ->update(['state' => WriteState::Sent, 'batch' => 'sheet']);
        if ($this->change->writes()->reorder()->where('state', WriteState::Sent)->exists()) {
            $this->change->take(Move::HandOut);

            return false;
        }

        return true;
    }

    private function checked(): bool
    {
        if ($this->change->checked) {
            return true;
        }
        if (! $this->nothingMoved()) {
            return false;
        }
        $this->change->update(['checked' => true]);
        $this->lease->progressed();

        return true;
    }

    /**
     * Is all that is to be written as it was when the change was worked out? If nothing has been written yet, nothing
     * is; else what has moved is left alone.
     */
    private function nothingMoved(): bool
    {
        $begun = $this->change
            ->writes()
            ->reorder()
            ->whereNotIn('state', [WriteState::Waiting, WriteState::Left])
            ->exists();
        $moved = [];
        $going = true;
        // what is written twice is looked at for the first of the two
        $seen = [];
        $waiting = Due::of($this->change)
            ->whereIn('stage', $this->stages)
            ->where('change_writes.state', WriteState::Waiting)
            ->limit(1000);
        for (
            $last = -1;
            $going && ($writes = Due::all((clone $waiting)->where('change_writes.position', '>', $last))) !== [];

        ) {
            $remotes = $this->batches->remotes($writes);
            foreach ($writes as $write) {
                $last = $write->position;
                $remote = $remotes[$write->externalId] ?? null;
                if (
                    ! isset($seen[$write->place()])
                    && ($remote === null
                        || $remote->version !== $write->version
                        || $remote->text($write->kind, $write->name) !== $write->before)
                ) {
                    $moved[$write->id] = $write->nodeName;
                }
                $seen[$write->place()] = true;
            }
            $going = $this->lease->extend();
        }
        if ($moved === [] || ! $going) {
            return $going;
        }
        if (! $begun) {
            $names = array_values(array_unique($moved));
            $this->end(
                Move::Stop,
                count($names)
                    .' of the places to write have changed on the platform since the last import ('
                    .implode(', ', array_slice($names, 0, 3))
                    .'). Nothing was written. Import the account, then draft the change again.',
            );

            return false;
        }
        foreach (array_chunk(array_keys($moved), 500) as $ids) {
            ChangeWrite::query()
                ->whereIntegerInRaw('id', $ids)
                ->update([
                    'state' => WriteState::Failed,
                    'problem' => 'It has changed on the platform meanwhile. Import, then draft again.',
                ]);
        }

        return true;
    }

    private function endTrial(): void
    {
        $clicks = $this->clicks(
            array_map(static fn (array $ad): int => $ad['node'], $this->change->story['trial']['ads'] ?? []),
        );
        $failed = $this->undone();
        $bad = self::bad($clicks);
        $ok = $failed === 0 && $bad === 0;
        $this->change->take(Move::EndTrial, [
            'trial' => ['ok' => $ok, 'clicks' => $clicks],
            'stage' => 'rest',
            'problem' => $ok
                ? null
                : 'The trial did not go as it should: '
                    .implode(
                        ' and ',
                        array_filter([
                            $failed > 0 ? "{$failed} of its writes did not take" : '',
                            $bad > 0
                                ? "{$bad} of ".count($clicks).' test clicks did not arrive as foreseen'
                                : '',
                        ]),
                    )
                    .'. Look at it, then take it back, or go on all the same.',
        ]);
    }

    private function endRest(): void
    {
        $ads = array_slice(
            array_column(TrialChoice::telling($this->change->story['samples'] ?? []), 'node'),
            0,
            self::TEST_CLICKS,
        );
        $clicks = $this->clicks($ads);
        $failed = $this->undone();
        $left = $this->change->writes()->reorder()->where('state', WriteState::Left)->count();
        $bad = self::bad($clicks);
        $problems = array_filter([
            $failed > 0 ? "{$failed} of the writes did not take; each says why. All others did." : '',
            $left > 0 ? "{$left} of the writes were left out, since it was stopped." : '',
            $bad > 0 ? "{$bad} of ".count($clicks).' test clicks did not arrive as foreseen.' : '',
        ]);
        $this->change->update(['verified' => ['ok' => $bad === 0, 'clicks' => $clicks]]);
        if (
            $this->change->takes_back !== null
            && $failed === 0
            && $left === 0
            && ! ($this->change->policy['part'] ?? false)
        ) {
            Change::query()
                ->find($this->change->takes_back)
                ?->take(Move::PutBack, ['problem' => null, 'finished_at' => now()]);
        }
        $this->end(
            $problems === [] ? Move::Complete : Move::CompleteInPart,
            $problems === [] ? null : implode(' ', $problems),
        );
    }

    /** @param list<array<string, mixed>> $clicks */
    private static function bad(array $clicks): int
    {
        return count(array_filter($clicks, static fn (array $c): bool => ! $c['foreseen']));
    }

    private function undone(): int
    {
        return $this->change
            ->writes()
            ->reorder()
            ->whereIn('stage', [...$this->stages, 'trial'])
            ->whereIn('state', WriteState::amiss())
            ->count();
    }

    /**
     * @param list<int> $ads
     * @return list<array<string, mixed>>
     */
    private function clicks(array $ads): array
    {
        if (! $this->connector->clicksNow()) {
            return [];
        }
        $plan = Plan::query()
            ->where(['client_id' => $this->change->client_id, 'revision' => $this->change->plan_revision])
            ->firstOrFail()
            ->read();
        $test = new TestClick($this->change->account, $this->connector, $plan);
        $clicks = [];
        foreach ($ads as $ad) {
            if (! $this->lease->extend()) {
                break;
            }
            $clicks[] = $test->of($ad);
        }

        return $clicks;
    }

    private function end(Move $move, ?string $problem): void
    {
        $this->change->take($move, ['problem' => $problem, 'finished_at' => now()]);
    }
}
