<?php

namespace App\Intakes;

use App\Models\Intake;
use App\Models\Node;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Level;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Sheet\Element;
use Vestigon\Core\Sheet\Problem;
use Vestigon\Core\Sheet\Step;

/** Decides what an import would make of each element that was staged: new, changed, as it was, gone, left out. */
final class Fates
{
    private const CHUNK = 500;

    private const MOST_LOST = 0.2;

    private int $moved = 0;

    private bool $isSomeLeft = false;

    public function __construct(
        private readonly Intake $intake,
        private readonly Dialect $dialect,
        private readonly KnownElements $known,
        private readonly Problems $problems,
        private readonly Stage $stage,
    ) {}

    /** @return array<string, mixed> how many of each fate, and level by level what is missing */
    public function settle(): array
    {
        foreach ($this->dialect->levels as $level) {
            $this->belowWhatIsLeft($level);
            $from = -1;
            do {
                $rows = DB::table('staged')
                    ->where(['intake_id' => $this->intake->id, 'depth' => $level->depth])
                    ->where('position', '>', $from)
                    ->whereNull('fate')
                    ->orderBy('position')
                    ->limit(self::CHUNK)
                    ->get(['hash', 'parent_hash', 'position', 'said']);
                $this->some($rows->all(), $level);
                $from = $rows->last()->position ?? $from;
            } while (count($rows) === self::CHUNK);
            // what was not said to be anything else
            DB::table('staged')
                ->where(['intake_id' => $this->intake->id, 'depth' => $level->depth])
                ->whereNull('fate')
                ->update(['fate' => Fate::Same->value]);
        }

        $counts = DB::table('staged')
            ->where('intake_id', $this->intake->id)
            ->where('depth', '>', 0)
            ->groupBy('fate')
            ->selectRaw('fate, count(*) n')
            ->pluck('n', 'fate')
            ->map(static fn (mixed $n): int => (int) $n);

        return [
            ...array_fill_keys(array_column(Fate::cases(), 'value'), 0),
            ...$counts,
            'moved' => $this->moved,
            'levels' => array_map($this->missing(...), array_slice($this->dialect->levels, 1)),
        ];
    }

    /** What was said to be new, or as it was, is looked at again where what it stands under is left out. */
    private function belowWhatIsLeft(Level $level): void
    {
        if ($this->isSomeLeft) {
            DB::update(
                'update staged s join staged p on p.intake_id = s.intake_id and p.hash = s.parent_hash '
                    .'set s.fate = null where s.intake_id = ? and s.depth = ? and p.fate = ?',
                [$this->intake->id, $level->depth, Fate::Left->value],
            );
        }
    }

    /** @param list<object> $rows */
    private function some(array $rows, Level $level): void
    {
        $elements = array_map(static fn (object $r): Element => Element::of(json_decode($r->said, true)), $rows);
        $known = $this->known->of(array_map(static fn (Element $e): Step => $e->step, $elements));
        $parents = $this->parents($rows);
        $fates = [];
        foreach ($elements as $i => $element) {
            $was = $known[$element->step->key()]['element'] ?? null;
            $fate = $this->fate($element, $was, $level, $parents[$rows[$i]->parent_hash ?? ''] ?? null);
            if ($fate !== Fate::Same) {
                $fates[] = ['hash' => bin2hex($rows[$i]->hash), 'fate' => $fate->value];
            }
            $this->isSomeLeft = $this->isSomeLeft || $fate === Fate::Left;
            if ($level->depth > 0) {
                $hasMoved = $was !== null && $element->parent !== null && $was->parent !== $element->parent;
                $this->moved += (int) ($hasMoved && $fate !== Fate::Left);
            }
        }
        foreach (array_chunk($fates, self::CHUNK) as $some) {
            DB::update(
                'update staged t join json_table(?, \'$[*]\' columns (hash varchar(32) path \'$.hash\', '
                    .'fate varchar(8) path \'$.fate\')) v on t.hash = unhex(v.hash) set t.fate = v.fate '
                    .'where t.intake_id = ?',
                [json_encode($some, JSON_THROW_ON_ERROR), $this->intake->id],
            );
        }
    }

    /** @param string|null $above the fate of what it stands under; null: that is known from before, or not said */
    private function fate(Element $element, ?Element $was, Level $level, ?string $above): Fate
    {
        if ($above === Fate::Left->value) {
            return Fate::Left;
        }
        if (Fate::hasNoPlace($element, $this->dialect)) {
            $name = $element->name() === '' ? $element->step->id : $element->name();
            $this->problems->add([
                new Problem(
                    'no-parent',
                    Severity::Error,
                    $element->first[0],
                    $element->first[1],
                    null,
                    "It is said nowhere what the {$level->label} “{$name}” stands under.",
                ),
            ]);

            return Fate::Left;
        }

        return Fate::of($element, $was);
    }

    /**
     * @param list<object> $rows
     * @return array<string, string|null> hash → fate of what they stand under, as far as the sheets have it
     */
    private function parents(array $rows): array
    {
        return DB::table('staged')
            ->where('intake_id', $this->intake->id)
            ->whereIn('hash', array_values(array_unique(array_filter(array_column($rows, 'parent_hash')))))
            ->pluck('fate', 'hash')
            ->all();
    }

    /** @return array{level: string, label: string, known: int, missing: int, whole: bool} */
    private function missing(Level $level): array
    {
        $all = Node::query()
            ->where(['account_id' => $this->intake->account_id ?? 0, 'depth' => $level->depth])
            ->count();
        $missing = $all - $this->stage->found($level->depth);
        $has = DB::table('staged')->where(['intake_id' => $this->intake->id, 'depth' => $level->depth])->exists();

        return [
            'level' => $level->id,
            'label' => $level->label,
            'known' => $all,
            'missing' => $missing,
            'whole' => $has && $missing <= $all * self::MOST_LOST,
        ];
    }
}
