<?php

namespace App\Intakes;

use App\Models\Intake;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Sheet\Problem;

/** Keeps what is wrong with an intake's rows; of each kind so many in full, all of them counted. */
final class Problems
{
    private const MOST_OF_A_KIND = 20_000;

    private const CHUNK = 500;

    /** @var array<string, int> by code */
    private array $counts = [];

    /** @var list<array<string, mixed>> */
    private array $waiting = [];

    public function __construct(private readonly Intake $intake) {}

    /** @param list<Problem> $problems */
    public function add(array $problems): void
    {
        foreach ($problems as $p) {
            $this->counts[$p->code] = ($this->counts[$p->code] ?? 0) + 1;
            if ($this->counts[$p->code] <= self::MOST_OF_A_KIND) {
                $this->waiting[] = [
                    'intake_id' => $this->intake->id,
                    'code' => $p->code,
                    'severity' => $p->severity->value,
                    'table' => $p->table,
                    'row' => $p->row,
                    'column' => $p->column === null ? null : mb_substr($p->column, 0, 255),
                    'says' => mb_strcut($p->says, 0, 2000),
                ];
            }
        }
        if (count($this->waiting) >= self::CHUNK) {
            $this->flush();
        }
    }

    public function flush(): void
    {
        foreach (array_chunk($this->waiting, self::CHUNK) as $some) {
            DB::table('intake_problems')->insert($some);
        }
        $this->waiting = [];
    }

    /** @return array<string, int> how many of each kind */
    public function counts(): array
    {
        return $this->counts;
    }
}
