<?php

namespace App\Sheets;

use App\Accounts\Trees;
use App\Changes\Batches;
use App\Changes\Due;
use App\Connectors\Connectors;
use App\Connectors\RemoteAnswer;
use App\Models\Change;
use App\Models\WriteState;
use App\Sheets\Files\FirstRows;
use App\Sheets\Files\Opening;
use App\Sheets\Files\Table;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Sheet\Column;
use Vestigon\Core\Sheet\Facts;
use Vestigon\Core\Sheet\HeadingRow;
use Vestigon\Core\Sheet\Headings;
use Vestigon\Core\Sheet\Layout;
use Vestigon\Core\Sheet\RowReader;
use Vestigon\Core\Sheet\SheetMap;
use Vestigon\Core\Sheet\TableMap;

/**
 * What a platform says of sheets that were brought to it. A column of outcomes is taken at its word; without one, a row
 * that holds what was to be written is taken.
 */
final class ResultSheets
{
    private const CHUNK = 500;

    private const OUTCOME = ['result', 'outcome', 'upload status', 'upload result'];

    private const WHY = ['remark', 'remarks', 'reason', 'message', 'error', 'errors', 'details'];

    private const TAKEN = ['ok', 'done', 'applied', 'updated', 'accepted', 'success', 'successful', 'yes', 'changed'];

    private readonly Dialect $dialect;

    /** @var array{taken: int, refused: int, unknown: int, problems: list<string>} */
    private array $told = ['taken' => 0, 'refused' => 0, 'unknown' => 0, 'problems' => []];

    /** @param SheetMap $map by which the sheets went out */
    public function __construct(private readonly Change $change, private readonly SheetMap $map)
    {
        $this->dialect = Trees::dialect($change->account);
    }

    /**
     * @return array{taken: int, refused: int, unknown: int, problems: list<string>}
     *
     * @throws UnusableInput
     */
    public function read(string $name, string $content): array
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'result');
        file_put_contents($path, $content);
        try {
            foreach (Opening::tables($path, $name) as $table) {
                $this->table($table, $name);
            }
        } finally {
            array_map(unlink(...), (array) glob("{$path}*"));
        }

        return $this->told;
    }

    /**
     * All of it was taken, as a person says.
     *
     * @return array{taken: int, refused: int, unknown: int, problems: list<string>}
     */
    public function allTaken(): array
    {
        while (($due = Due::all($this->sent()->limit(self::CHUNK))) !== []) {
            $this->note($due, array_map(static fn (Due $d): RemoteAnswer => new RemoteAnswer('done', '', null), $due));
        }

        return $this->told;
    }

    private function table(Table $table, string $name): void
    {
        $first = FirstRows::of($table, HeadingRow::WITHIN);
        $layout = Layout::in($this->map, $table->title(), $first);
        if ($layout === null) {
            $headings = array_merge(...array_map(static fn (TableMap $t): array => array_map(
                static fn (Column $c): string => $c->heading,
                $t->columns,
            ), $this->map->tables));

            throw new UnusableInput(
                "{$name} has no headings of the sheets that this goes out in: ".implode(', ', $headings),
            );
        }
        $headings = array_map(static fn (mixed $h): string => Headings::folded((string) $h), $first[$layout->at]);
        $outcome = self::place($headings, self::OUTCOME);
        $why = self::place($headings, self::WHY);
        $reader = new RowReader($this->dialect, $this->map, $layout, 0, $this->change->account->external_id);
        $some = [];
        $number = 0;
        foreach ($table->rows() as $row) {
            if (++$number <= $layout->at + 1) {
                continue;
            }
            $said = $reader->read($row, $number)->said;
            if ($said !== null) {
                $some[$said->own()->id] = [
                    'name' => $said->own()->name,
                    'facts' => $said->facts,
                    'outcome' => $outcome === null ? null : trim((string) ($row[$outcome] ?? '')),
                    'why' => $why === null ? '' : trim((string) ($row[$why] ?? '')),
                ];
            }
            if (count($some) === self::CHUNK) {
                $this->take($some);
                $some = [];
            }
        }
        $this->take($some);
    }

    /**
     * @param array<string|int, array{name: string, facts: Facts, outcome: string|null, why: string}> $rows by the
     *     platform's number
     */
    private function take(array $rows): void
    {
        $ids = array_map(strval(...), array_keys($rows));
        $due = Due::all($this->sent()->whereIn('external_id', $ids));
        $this->note(
            $due,
            array_map(static fn (Due $d): RemoteAnswer => self::answer($d, $rows[$d->externalId]), $due),
        );
        foreach (array_diff($ids, array_map(static fn (Due $d): string => $d->externalId, $due)) as $id) {
            $this->told['unknown']++;
            if (count($this->told['problems']) < 20) {
                $this->told['problems'][] = "{$id} is not waiting for an answer; its row was left out.";
            }
        }
    }

    /**
     * @param list<Due> $due
     * @param list<RemoteAnswer> $answers
     */
    private function note(array $due, array $answers): void
    {
        $connector = app(Connectors::class)->to($this->change->account->link);
        (new Batches($this->change, $connector, []))->note($due, $answers);
        $taken = count(array_filter($answers, static fn (RemoteAnswer $a): bool => $a->state === 'done'));
        $this->told['taken'] += $taken;
        $this->told['refused'] += count($answers) - $taken;
    }

    /** @param array{name: string, facts: Facts, outcome: string|null, why: string} $row */
    private static function answer(Due $due, array $row): RemoteAnswer
    {
        $holds = match ($due->kind) {
            'custom' => $row['facts']->custom[$due->name] ?? '',
            'setting' => $row['facts']->settings[$due->name] ?? '',
            'name' => $row['name'],
            default => $row['facts']->slots[$due->kind] ?? '',
        };
        $taken = $row['outcome'] === null
            ? $holds === (string) $due->after
            : in_array(mb_strtolower($row['outcome']), self::TAKEN, true);
        $why = trim(
            $row['outcome'] === null ? 'its sheet holds another text' : "{$row['outcome']} {$row['why']}",
        );

        return $taken
            ? new RemoteAnswer('done', '', null)
            : new RemoteAnswer('refused', $why === '' ? 'it does not say why' : $why, null);
    }

    /**
     * @param list<string> $headings
     * @param list<string> $words
     */
    private static function place(array $headings, array $words): ?int
    {
        foreach ($headings as $place => $heading) {
            if (in_array($heading, $words, true)) {
                return $place;
            }
        }

        return null;
    }

    private function sent(): \Illuminate\Database\Query\Builder
    {
        return Due::of($this->change)->where('change_writes.state', WriteState::Sent);
    }
}
