<?php

namespace App\Changes;

use App\Accounts\Branches;
use App\Accounts\Trees;
use App\Models\Node;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Compile\Decided;
use Vestigon\Core\Compile\Deciding;
use Vestigon\Core\Compile\InParts;
use Vestigon\Core\Compile\Objections;

/** Decides on ads from all over an account what is written above its pieces, and has those worked out. */
final class DecidedPieces extends Deciding
{
    /** From so many groups, or what else ads stand in. */
    private const GROUPS = 400;

    private const OF_EACH = 2;

    /** So many of those that are broken, untracked or proven. */
    private const OF_STATES = 200;

    private ?InParts $parts = null;

    /** @var array<int, list<int>> ads by the element that they are below */
    private array $ads = [];

    /** What the pieces have told, as they were worked out last. */
    public ?ToldPieces $told = null;

    /** @param \Closure(Decided): ToldPieces $work works the pieces out */
    public function __construct(
        private readonly Brief $brief,
        private readonly Division $division,
        private readonly \Closure $work,
    ) {
        foreach ($division->above() as $element) {
            $this->ads[$element] = $this->someBelow($element);
        }
    }

    protected function decided(): Decided
    {
        if ($this->brief->byHand) {
            return $this->chosen();
        }
        $decided = new Decided();
        foreach ($this->division->above() as $element) {
            $this->parts ??= $this->brief->inParts();
            $decided = $this->parts->decided($this->some($element), [(string) $element], $decided);
        }

        return $decided;
    }

    /** What a person has chosen for those elements. */
    private function chosen(): Decided
    {
        $above = Trees::to($this->brief->change->account, $this->division->above());

        return new Decided(ChosenTexts::of($this->brief->change, $above));
    }

    protected function work(Decided $decided): Objections
    {
        $this->told = ($this->work)($decided);

        return $this->told->objections;
    }

    protected function learn(array $ads): bool
    {
        $new = array_values(array_diff(array_map(intval(...), $ads), array_merge(...array_values($this->ads))));
        if ($new === [] || $this->ads === [] || $this->brief->byHand) {
            return false;
        }
        $branches = Trees::to($this->brief->change->account, $new);
        foreach (array_keys($this->ads) as $element) {
            $isBelow = static fn (int $ad): bool => in_array((string) $element, $branches->keysTo((string) $ad), true);
            array_push($this->ads[$element], ...array_filter($new, $isBelow));
        }

        return true;
    }

    /** The ads that it is decided on, with all that stands above them. */
    public function some(int $element): Account
    {
        return $this->brief->writable(Trees::to($this->brief->change->account, $this->ads[$element]));
    }

    /** @return list<int> */
    private function someBelow(int $element): array
    {
        $account = $this->brief->change->account;
        $groups = $this->division->groupsBelow($element);
        $apart = max(1, count($groups) / self::GROUPS);
        $chosen = [];
        for ($at = 0.0; $at < count($groups); $at += $apart) {
            $chosen[] = $groups[(int) $at];
        }
        $numbered = Node::query()
            ->where('account_id', $account->id)
            ->whereIntegerInRaw('parent_id', $chosen)
            ->where('is_ad', true)
            ->selectRaw('id, row_number() over (partition by parent_id order by id) as place');
        $spread = DB::query()->fromSub($numbered, 'ads')->where('place', '<=', self::OF_EACH)->pluck('id')->all();

        $ofStates = Branches::someOfEachState($account, self::OF_STATES, [$element]);

        return array_values(array_unique([...$spread, ...$ofStates]));
    }
}
