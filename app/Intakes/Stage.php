<?php

namespace App\Intakes;

use App\Models\Intake;
use App\Support\Bulk;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Sheet\Element;
use Vestigon\Core\Sheet\Gathering;
use Vestigon\Core\Sheet\Said;
use Vestigon\Core\Sheet\Step;

/**
 * Gathers what an intake's rows say, some rows at a time: between two times, each element waits in the database. So an
 * import of any size takes the memory of a few hundred rows.
 */
final class Stage
{
    /** Of nodes: those that no row of an intake names, see hash(). */
    public const MISSING =
        'not exists (select 1 from staged s where s.intake_id = ? and '
        .'s.hash = unhex(md5(concat(nodes.level, char(31), nodes.external_id))))';

    private const CHUNK = 500;

    /** @var list<Said> */
    private array $waiting = [];

    private int $position = 0;

    private readonly StagedFigures $figures;

    /** @var array<int, int> depth → elements that are known from before, are there, and are named by a row */
    private array $found = [];

    public function __construct(
        private readonly Intake $intake,
        private readonly Dialect $dialect,
        private readonly KnownElements $known,
        private readonly Problems $problems,
    ) {
        $this->figures = new StagedFigures($intake);
    }

    /** So many elements that are known from before, and are there, are named by rows. */
    public function found(int $depth): int
    {
        return $this->found[$depth] ?? 0;
    }

    /** What stands in the database for a key; shorter than it, and as good as unique. */
    public static function hash(string $key): string
    {
        return md5($key, true);
    }

    public function add(Said $said): void
    {
        $this->waiting[] = $said;
        if (count($this->waiting) === self::CHUNK) {
            $this->flush();
        }
    }

    public function flush(): void
    {
        $steps = [];
        foreach ($this->waiting as $said) {
            foreach ($said->steps as $step) {
                $steps[$step->key()] = $step;
            }
        }
        $before = $this->before($steps);
        $heads = $this->known->heads(array_values($steps));
        foreach (array_diff_key($heads, $before) as $key => $head) {
            if ($head->gone_at === null) {
                $this->found[$steps[$key]->depth] = ($this->found[$steps[$key]->depth] ?? 0) + 1;
            }
        }
        $gathering = new Gathering($this->dialect, $before, array_map(KnownElements::parent(...), $heads));
        foreach ($this->waiting as $said) {
            $gathering->row($said);
        }
        $this->keep(
            array_filter(
                $gathering->elements(),
                static fn (Element $e, string|int $key): bool => $e !== ($before[$key] ?? null),
                ARRAY_FILTER_USE_BOTH,
            ),
            $heads,
        );
        $this->figures->add($this->waiting);
        $this->problems->add($gathering->problems());
        $this->waiting = [];
    }

    /**
     * @param array<string, Step> $steps by key
     * @return array<string, Element> what rows have said of them before
     */
    private function before(array $steps): array
    {
        $elements = [];
        $rows = DB::table('staged')
            ->where('intake_id', $this->intake->id)
            ->whereIn('hash', array_map(self::hash(...), array_map(strval(...), array_keys($steps))))
            ->pluck('said');
        foreach ($rows as $said) {
            $element = Element::of(json_decode($said, true));
            $elements[$element->step->key()] = $element;
        }

        return $elements;
    }

    /**
     * @param array<string, Element> $elements by key
     * @param array<string, object> $heads of those that were known before, by key
     */
    private function keep(array $elements, array $heads): void
    {
        $same = array_filter(
            array_intersect_key($elements, $heads),
            static fn (Element $e, string|int $key): bool => $heads[$key]->said === $e->settled()->digest(),
            ARRAY_FILTER_USE_BOTH,
        );
        $other = array_diff_key(array_intersect_key($elements, $heads), $same);
        $known = $this->known->of(array_values(array_map(static fn (Element $e): Step => $e->step, $other)));
        $rows = [];
        foreach ($elements as $key => $element) {
            $fate = $this->atOnce($element, $known[$key]['element'] ?? null, isset($same[$key]));
            $rows[] = [
                'intake_id' => $this->intake->id,
                'hash' => self::hash((string) $key),
                'depth' => $element->step->depth,
                'level' => $element->step->level,
                'external_id' => $element->step->id,
                'parent_hash' => $element->parent === null ? null : self::hash($element->parent[1]),
                'position' => $this->position++,
                'fate' => $fate?->value,
                'unsaid' => (int) ($fate === Fate::Same && ! isset($same[$key])),
                'said' => json_encode($element->toArray(), JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            ];
        }
        Bulk::upsert('staged', $rows, ['parent_hash', 'fate', 'unsaid', 'said']);
    }

    /** What becomes of an element, if that can be said before all rows are read. */
    private function atOnce(Element $said, ?Element $was, bool $isAsSaid): ?Fate
    {
        if ($said->isAmbiguous || Fate::hasNoPlace($said, $this->dialect)) {
            return null;
        }
        $fate = $isAsSaid ? Fate::Same : Fate::of($said, $was);

        return $fate === Fate::New || $fate === Fate::Same ? $fate : null;
    }
}
