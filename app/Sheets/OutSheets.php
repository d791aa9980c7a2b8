<?php

namespace App\Sheets;

use App\Accounts\Branches;
use App\Accounts\Trees;
use App\Changes\Place;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\WriteState;
use App\Sheets\Files\Form;
use App\Sheets\Files\Writing;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Sheet\Outgoing;

/**
 * A change of an account that came as sheets, as sheets of the same shape: the same headings, delimiter, encoding and
 * preamble, only rows and columns that are needed. Read back in by the same map they make exactly the change's writes.
 */
final class OutSheets
{
    private const CHUNK = 500;

    private readonly Outgoing $outgoing;

    private readonly Shape $shape;

    /** @var list<WriteState> */
    private readonly array $states;

    /** @var array<string, string> texts that have no column, in words */
    private array $missing = [];

    /** @param Shape|null $shape null: the one that the account came in */
    public function __construct(private readonly Change $change, ?Shape $shape = null)
    {
        $dialect = Trees::dialect($change->account);
        $this->shape = $shape ?? Shape::of($change->account);
        // of one that is out, what waits for the platform's answer
        $this->states =
            $change->status === ChangeStatus::HandedOut
                ? [WriteState::Sent]
                : [WriteState::Waiting, WriteState::Sent];
        $this->outgoing = new Outgoing($this->shape->tables);
        foreach ($this->writes()->cursor() as $row) {
            if (! $this->outgoing->place(self::write($row), $row->level)) {
                $level = $dialect->level($row->level)->label ?? $row->level;
                $this->missing["{$row->level} {$row->kind} {$row->name}"] = match ($row->kind) {
                    'setting' => 'what the account switches',
                    'custom' => "the custom parameter {$row->name} at {$level} level",
                    default => "the {$row->kind} at {$level} level",
                };
            }
        }
    }

    /** @return list<string> the texts that the sheets have no column for, in words */
    public function missing(): array
    {
        return array_values($this->missing);
    }

    /**
     * @return array{path: string, name: string, type: string} a temporary file: it is the caller's to remove
     *
     * @throws UnusableInput a row would not be read back as what it says
     */
    public function file(): array
    {
        if ($this->missing !== []) {
            throw new UnusableInput('there is no column for '.implode(', ', $this->missing()));
        }
        if ($this->outgoing->headings() === []) {
            throw new UnusableInput('nothing of this change waits to be written');
        }
        $files = [];
        foreach ($this->outgoing->headings() as $at => $headings) {
            $look = $this->shape->looks[$at];
            $files[$look['name']][] = [
                'title' => $look['title'],
                'form' => new Form(...$look['form']),
                'rows' => fn (): iterable => $this->rows($at, $headings),
            ];
        }

        return Writing::files($files, "change-{$this->change->id}");
    }

    /**
     * @param list<string> $headings
     * @return iterable<list<string|int|float|null>>
     */
    private function rows(int $at, array $headings): iterable
    {
        yield from array_slice($this->shape->looks[$at]['first'], 0, $this->shape->layouts[$at]->at);
        yield $headings;
        $last = 0;
        do {
            $nodes = $this->writes()
                ->reorder('node_id')
                ->where('node_id', '>', $last)
                ->distinct()
                ->limit(self::CHUNK)
                ->pluck('node_id')
                ->all();
            $after = $this->after($nodes);
            $branch = $nodes === [] ? null : Branches::of($this->change->account, ...$nodes);
            foreach ($nodes as $node) {
                $path = $branch?->path($node);
                $rows =
                    $path === null
                        ? []
                        : $this->outgoing->rows(
                            (string) $node,
                            self::with($path, $after[$node]),
                            self::switched($after[$node]),
                        );
                if (array_key_exists($at, $rows)) {
                    yield $rows[$at]
                        ?? throw new UnusableInput(
                            "the row of {$path?->last()->name} could not be read back as what it says. Give its "
                                .'sheet a column with its number',
                        );
                }
            }
            $last = end($nodes);
        } while (count($nodes) === self::CHUNK);
    }

    /**
     * @param list<int> $nodes
     * @return array<int, list<Write>>
     */
    private function after(array $nodes): array
    {
        $after = array_fill_keys($nodes, []);
        foreach ($this->writes()->whereIntegerInRaw('node_id', $nodes)->get() as $row) {
            $after[$row->node_id][] = self::write($row);
        }

        return $after;
    }

    /** @param list<Write> $writes to its last node */
    private static function with(Path $path, array $writes): Path
    {
        $freezes = $path->dialect->namesFreeze;
        $node = array_reduce($writes, static fn (Node $n, Write $w): Node => $w->on($n, $freezes), $path->last());

        return new Path($path->dialect, [...array_slice($path->nodes, 0, -1), $node]);
    }

    /**
     * @param list<Write> $writes
     * @return array<string, string> what they switch, by name
     */
    private static function switched(array $writes): array
    {
        $switched = [];
        foreach ($writes as $write) {
            if ($write->setting !== null) {
                $switched[$write->setting->value] = (string) $write->after;
            }
        }

        return $switched;
    }

    private static function write(object $row): Write
    {
        return Place::written((string) $row->node_id, $row->kind, $row->name, $row->before, $row->after);
    }

    private function writes(): Builder
    {
        return DB::table('change_writes')
            ->join('nodes', 'nodes.id', 'node_id')
            ->where('change_id', $this->change->id)
            ->whereIn('change_writes.state', $this->states)
            ->orderBy('change_writes.position')
            ->select('node_id', 'nodes.level', 'kind', 'change_writes.name', 'before', 'after');
    }
}
