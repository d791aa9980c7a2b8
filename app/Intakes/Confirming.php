<?php

namespace App\Intakes;

use App\Jobs\ReadIntake;
use App\Models\Intake;
use App\Models\IntakeStatus;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Sheet\SheetMap;
use Vestigon\Core\Sheet\SheetMapReader;

/** Takes what a person says of an intake's tables, and has every row read by it. */
final readonly class Confirming
{
    public function __construct(private Intake $intake, private Dialect $dialect) {}

    /**
     * @param array<string, mixed> $wanted revision, title and what words in cells say
     * @param list<array<string, mixed>> $tables title, use, level, rowKind and columns of each
     * @return array{int, string}|null why not, with the status that says so
     *
     * @throws UnusableInput the map can't be used
     */
    public function read(array $wanted, array $tables): ?array
    {
        $used = array_values(array_filter($tables, static fn (array $t): bool => (bool) $t['use']));
        if ($used === []) {
            return [422, 'No table is to be read. Choose at least one.'];
        }
        $map = [
            'format' => SheetMap::FORMAT,
            'dialect' => $this->dialect->id,
            'title' => $wanted['title'],
            ...$wanted['cells'] ?? [],
            'tables' => array_map(
                static fn (array $t): array => array_filter(
                    [
                        'title' => $t['title'],
                        'level' => $t['level'] ?? null,
                        'rowKind' => $t['rowKind'] ?? null,
                        'columns' => array_map(
                            static fn (mixed $c): mixed => is_array($c)
                                ? array_filter($c, static fn (mixed $v): bool => $v !== null)
                                : $c,
                            $t['columns'],
                        ),
                    ],
                    static fn (mixed $v): bool => $v !== null,
                ),
                $used,
            ),
        ];
        SheetMapReader::read(new Cursor($map), $this->dialect);
        $use = array_column($tables, 'use', 'title');

        return DB::transaction(function () use ($wanted, $map, $use): ?array {
            $intake = Intake::query()->lockForUpdate()->findOrFail($this->intake->id);
            if ($intake->status === IntakeStatus::Begun || $intake->revision !== (int) $wanted['revision']) {
                return [
                    409,
                    'Somebody else has changed this since you opened it. What you said of the columns is still here; '
                        .'load the page in another window and compare.',
                ];
            }
            if ($intake->files()->whereColumn('received', '<', 'bytes')->exists()) {
                return [409, 'A file has not come whole yet. Drop it again, or remove it.'];
            }
            $intake->update([
                'map' => $map,
                'tables' => array_map(
                    static fn (array $look): array => [
                        ...$look,
                        'use' => $look['problem'] === null && (bool) ($use[$look['title']] ?? false),
                    ],
                    $intake->tables ?? [],
                ),
                'status' => IntakeStatus::Reading,
                'revision' => $intake->revision + 1,
                'counts' => null,
                'done' => 0,
                'problem' => null,
            ]);
            ReadIntake::dispatch($intake->id, $intake->revision)->afterCommit();

            return null;
        }, 5);
    }
}
