<?php

namespace App\Changes;

use App\Accounts\Branches;
use App\Accounts\Trees;
use App\Models\Change;
use App\Support\Overtaken;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Compile\Advice;
use Vestigon\Core\Compile\Advisor;
use Vestigon\Core\Compile\Compiled;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Decided;
use Vestigon\Core\Compile\Progress;
use Vestigon\Core\Compile\Stage;
use Vestigon\Core\Compile\Staged;
use Vestigon\Core\Compile\Write;

/**
 * Works a change out: the first samples at once, from a few ads; then all of it, in one piece or, where there are very
 * many ads, in several.
 */
final class Drafting
{
    private const FIRST_LOOK_AT = 200;

    private readonly Brief $brief;

    private DraftTurn $turn;

    private DraftedWrites $writes;

    private Progress $progress;

    /** Bytes that a process took at most which worked out pieces; 0: there was one piece. */
    public int $memory = 0;

    public function __construct(
        private readonly Change $change,
        private readonly int $size = Division::ADS,
    ) {
        $this->brief = Brief::of($change);
    }

    /** @return bool false: it was dropped or begun anew meanwhile */
    public function run(): bool
    {
        gc_disable(); // the core makes no circles: looking for some among a million ads would find none
        try {
            $this->workOut();

            return true;
        } catch (Overtaken) {
            return false;
        } finally {
            gc_enable();
        }
    }

    /** @throws Overtaken */
    private function workOut(): void
    {
        $this->turn = DraftTurn::begin($this->change);
        $this->writes = new DraftedWrites($this->change, $this->turn);
        $this->progress = new Progress($this->turn->tell(...));
        $this->writes->clear();
        $this->firstSamples();
        $division = Division::of($this->change->account, $this->change->scope, $this->size);
        if ($division->above() !== [] || count($division->pieces()) > 1) {
            $this->inPieces($division);

            return;
        }
        $draft = new PieceDraft($this->brief, $this->turn, null);
        $worked = $draft->work($division->pieces()[0], $this->progress);
        $this->offer($worked->told);
        if ($this->brief->byHand) {
            $this->keepAdvice([]);
        } else {
            $this->advise($worked->before, $worked->compiled);
        }
    }

    /** Samples from a few ads, so that there is something to look at while the rest is computed. */
    private function firstSamples(): void
    {
        if ($this->brief->byHand) {
            return;
        }
        $this->progress->step('taking a first look');
        $account = $this->change->account;
        $ads = Branches::someOfEachState($account, self::FIRST_LOOK_AT, $this->change->scope);
        $few = $this->brief->writable(Trees::to($account, $ads));
        $compiled = Compiler::compile($few, $this->brief->plan, $this->brief->policy());
        $told = (new Story($few, Write::applied($few, $compiled->writes), $this->brief->plan, $compiled))->tell();
        $story = $told->toArray($few->dialect->namesFreeze);
        $this->change->update(['story' => [...$story, 'trial' => null, 'advice' => [], 'early' => true]]);
    }

    /** @throws Overtaken */
    private function inPieces(Division $division): void
    {
        $this->progress->step('looking at ads from all over the account');
        $drafts = new PieceDrafts($this->brief, $this->turn);
        $deciding = new DecidedPieces(
            $this->brief,
            $division,
            function (Decided $decided) use ($division, $drafts): ToldPieces {
                $this->writes->clear();
                $this->writes->add(0, $decided->writes);

                return $drafts->work($division->pieces(), $decided);
            },
        );
        $decided = $deciding->settle();
        $told = $deciding->told ?? throw new \LogicException('the pieces have been worked out');
        $this->memory = $told->memory;
        $stories = $told->stories;
        ksort($stories);
        $this->offer(
            array_reduce(
                $stories,
                static fn (ToldStory $all, ToldStory $one): ToldStory => $all->and($one),
                Story::ofDecided(
                    $decided,
                    Trees::to($this->change->account, $division->above()),
                    $this->brief->plan,
                ),
            ),
        );
        $top = $division->above()[0] ?? null;
        if ($top === null || $this->brief->byHand) {
            $this->keepAdvice([]);
        } else {
            $some = $deciding->some($top);
            $compiled = Compiler::compile($some, $this->brief->plan, $this->brief->policy());
            $this->advise($some, $compiled, iterator_count($some->adNodes()));
        }
    }

    /**
     * Hands the change over to be looked at, with what it is tried on first.
     *
     * @throws Overtaken
     */
    private function offer(ToldStory $told): void
    {
        $account = $this->change->account;
        $dialect = Trees::dialect($account);
        $story = $told->toArray($dialect->namesFreeze);
        [$choice, $after] = [TrialChoice::none(), null];
        // what is not asked for clicks can't be tried on one ad
        if (! $this->brief->cameAsSheets() && $story['samples'] !== []) {
            $before = $this->brief->writable(Trees::to($account, array_column($story['samples'], 'node')));
            $keys = array_map(strval(...), array_keys($before->nodes));
            $after = Write::applied($before, $this->writes->on($keys, $dialect));
            $choice = TrialChoice::of($account, $before, $after, $story['samples']);
        }
        $nodes = $choice->nodes();
        $about = $this->writes->on($nodes, $dialect);
        $others = $told->writes - count($about);
        $staged = Staged::of($about, $choice->trials, $others);
        $tried = count(array_filter($staged->writes, static fn (array $s): bool => $s[1] === Stage::Trial));
        $trial = null;
        if ($after !== null && $tried !== 0 && $tried !== count($staged->writes) + $others) {
            $trial = $choice->told($after, $tried, $story['ads']);
        } else {
            $staged = Staged::of($about, [], $others);
        }
        DB::transaction(function () use ($nodes, $staged, $dialect, $story, $trial): void {
            $this->turn->tell('noting the writes', 0);
            $this->writes->settle($nodes, $staged, $dialect);
            $this->change->take(Move::Offer, [
                'story' => [...$story, 'trial' => $trial, 'advice' => null],
                'stage' => $trial === null ? 'rest' : 'trial',
                'step' => '',
                'through' => 0,
            ]);
        });
    }

    /**
     * Says where a small give in the plan would save much. Nobody waits for that: the change can be gone on with
     * meanwhile.
     *
     * @param int|null $of it is looked for among so many ads only; null: among all
     */
    private function advise(Account $before, Compiled $compiled, ?int $of = null): void
    {
        $advice = Advisor::advice($before, $this->brief->plan, $compiled, $this->brief->policy());
        $told = static fn (Advice $a): array => [
            ...$a->toArray(),
            'nodes' => count($a->nodes),
            ...$of === null ? [] : ['of' => $of],
        ];
        $this->keepAdvice(array_map($told, $advice));
    }

    /** @param list<array<string, mixed>> $advice */
    private function keepAdvice(array $advice): void
    {
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
}
