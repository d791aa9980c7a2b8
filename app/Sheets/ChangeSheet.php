<?php

namespace App\Sheets;

use App\Changes\Batches;
use App\Changes\Due;
use App\Connectors\Connectors;
use App\Connectors\RemoteAnswer;
use App\Models\Change;
use App\Models\ChangeWrite;
use App\Models\Mapping;
use App\Models\WriteState;
use Vestigon\Core\Document\UnusableInput;

/** A change as a sheet for the platform: only what changes, a row an element; and the platform's result read back. */
final readonly class ChangeSheet
{
    private const TAKEN = ['ok', 'done', 'applied', 'updated', 'accepted', 'success', 'yes'];

    public function __construct(private Change $change, private Mapping $mapping) {}

    /** @return string a temporary file */
    public function write(string $kind): string
    {
        $columns = $this->headings();
        $fixed = array_intersect_key($this->mapping->columns, ['id' => 1, 'level' => 1, 'name' => 1]);

        return Sheet::write(
            $kind,
            [...array_values($fixed), ...array_values($columns)],
            $this->rows(array_keys($fixed), array_keys($columns)),
        );
    }

    /** @return array<string, string> kind and name of each text that goes out → its column's heading */
    private function headings(): array
    {
        $columns = [];
        foreach ($this->due()->select('kind', 'name')->distinct()->get() as $w) {
            $columns["{$w->kind} {$w->name}"] = $this->heading($w);
        }

        return $columns;
    }

    /**
     * Reads a result sheet. A row whose outcome is one of the usual words for yes is taken; without a column for the
     * outcome, one that holds our texts.
     *
     * @return array{taken: int, refused: int, unknown: int, problems: list<string>}
     *
     * @throws UnusableInput
     */
    public function read(string $name, string $content): array
    {
        $result = ['taken' => 0, 'refused' => 0, 'unknown' => 0, 'problems' => []];
        $heads = null;
        $some = [];
        foreach (Sheet::read($name, $content) as $row) {
            if ($heads === null) {
                $heads = $this->heads($name, $row);
            } elseif (($id = trim($row[$heads['id']] ?? '')) !== '') {
                $some[$id] = $row;
                if (count($some) === 500) {
                    $this->take($some, $heads, $result);
                    $some = [];
                }
            }
        }
        if ($heads === null) {
            throw new UnusableInput("{$name} is empty");
        }
        $this->take($some, $heads, $result);

        return $result;
    }

    /**
     * @param list<string> $fixed
     * @param list<string> $columns kind and name
     * @return iterable<list<string>>
     */
    private function rows(array $fixed, array $columns): iterable
    {
        foreach (
            $this->due()->select('node_id')->distinct()->orderBy('node_id')->pluck('node_id')->chunk(500) as $nodes
        ) {
            foreach (
                $this->due()
                    ->whereIntegerInRaw('node_id', $nodes->all())
                    ->with('node')
                    ->orderBy('position')
                    ->get()
                    ->groupBy('node_id') as $writes
            ) {
                $node = $writes[0]->node;
                $texts = $writes->mapWithKeys(
                    static fn (ChangeWrite $w): array => ["{$w->kind} {$w->name}" => $w->after ?? ''],
                );
                yield [
                    ...array_map(
                        static fn (string $f): string => [
                            'id' => $node->external_id,
                            'level' => $node->level,
                            'name' => $node->name,
                        ][$f],
                        $fixed,
                    ),
                    ...array_map(static fn (string $c): string => $texts[$c] ?? '', $columns),
                ];
            }
        }
    }

    /**
     * @param list<string> $row
     * @return array<string, int> what → its column
     */
    private function heads(string $name, array $row): array
    {
        $row = array_map(trim(...), $row);
        $heads = [];
        foreach ([...$this->mapping->columns, ...$this->headings()] as $what => $heading) {
            $at = array_search($heading, $row, true);
            if ($at !== false) {
                $heads[$what] = (int) $at;
            }
        }

        return isset($heads['id'])
            ? $heads
            : throw new UnusableInput(
                "{$name} has no column “{$this->mapping->columns['id']}”; the mapping “{$this->mapping->name}” says "
                    .'that it holds the numbers',
            );
    }

    /**
     * @param array<string|int, list<string>> $rows by the platform's id
     * @param array<string, int> $heads
     * @param array{taken: int, refused: int, unknown: int, problems: list<string>} $result
     */
    private function take(array $rows, array $heads, array &$result): void
    {
        $writes = Due::all(
            Due::of($this->change)
                ->whereIn('stage', $this->stages())
                ->where('change_writes.state', WriteState::Sent)
                ->whereIn('external_id', array_map(strval(...), array_keys($rows))),
        );
        $answers = array_map(
            fn (Due $d): RemoteAnswer => $this->answer($d, $rows[$d->externalId], $heads),
            $writes,
        );
        $this->batches()->note($writes, $answers);
        $taken = count(array_filter($answers, static fn (RemoteAnswer $a): bool => $a->state === 'done'));
        $result['taken'] += $taken;
        $result['refused'] += count($answers) - $taken;
        foreach (
            array_diff(
                array_map(strval(...), array_keys($rows)),
                array_map(static fn (Due $d): string => $d->externalId, $writes),
            ) as $id
        ) {
            $result['unknown']++;
            if (count($result['problems']) < 20) {
                $result['problems'][] = "{$id} is not waiting for an answer; its row was left out.";
            }
        }
    }

    /**
     * @param list<string> $row
     * @param array<string, int> $heads
     */
    private function answer(Due $write, array $row, array $heads): RemoteAnswer
    {
        if (isset($heads['result'])) {
            $said = trim($row[$heads['result']] ?? '');
            $taken = in_array(mb_strtolower($said), self::TAKEN, true);
            $why = isset($heads['message']) ? trim($row[$heads['message']] ?? '') : '';
        } else {
            $at = $heads["{$write->kind} {$write->name}"] ?? null;
            $taken = $at !== null && trim($row[$at] ?? '') === (string) $write->after;
            [$said, $why] = ['', 'its sheet holds another text'];
        }

        return $taken
            ? new RemoteAnswer('done', '', null)
            : new RemoteAnswer('refused', trim("{$said} {$why}") ?: 'it does not say why', null);
    }

    private function heading(ChangeWrite $write): string
    {
        return match ($write->kind) {
            'custom' => ($this->mapping->columns['custom'] ?? '').$write->name,
            'setting' => $write->name,
            default => $this->mapping->columns[$write->kind]
                ?? throw new UnusableInput(
                    "the mapping “{$this->mapping->name}” has no column for the {$write->kind}",
                ),
        };
    }

    /** @return \Illuminate\Database\Eloquent\Builder<ChangeWrite> */
    private function due(): \Illuminate\Database\Eloquent\Builder
    {
        return ChangeWrite::query()->where('change_id', $this->change->id)->whereIn('stage', $this->stages());
    }

    /** @return list<string> */
    private function stages(): array
    {
        return $this->change->stage === 'trial' ? ['trial'] : ['rest', 'after'];
    }

    private function batches(): Batches
    {
        return new Batches($this->change, app(Connectors::class)->to($this->change->account->link), []);
    }
}
