<?php

namespace App\Intakes;

use App\Models\Intake;
use App\Models\IntakeStatus;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Document\UnusableInput;

/** Takes what a person says of how a table stands in its file: which row holds the headings, and how text is cut. */
final readonly class LookingAgain
{
    public function __construct(private Intake $intake) {}

    /**
     * @param array<string, mixed> $wanted revision, title, headingRow, delimiter, encoding
     * @return array{int, string}|null why not, with the status that says so
     *
     * @throws UnusableInput the file can't be read like that
     */
    public function at(array $wanted): ?array
    {
        return DB::transaction(function () use ($wanted): ?array {
            $intake = Intake::query()->lockForUpdate()->findOrFail($this->intake->id);
            if (
                $intake->revision !== (int) $wanted['revision']
                || ! in_array($intake->status, [IntakeStatus::Open, IntakeStatus::Read], true)
            ) {
                return [409, 'This has changed since you looked at it. Look at it once more.'];
            }
            $tables = $intake->tables ?? [];
            $at = array_search($wanted['title'], array_column($tables, 'title'), true);
            $file = $at === false ? null : $intake->files()->find($tables[$at]['file']);
            if ($at === false || $file === null) {
                return [422, 'There is no such table among these sheets.'];
            }
            $told = array_intersect_key($wanted, ['headingRow' => 1, 'delimiter' => 1, 'encoding' => 1]);
            $tables[$at] = Looks::again($file->setRelation('intake', $intake), $tables[$at], $told);
            $intake->update([
                'tables' => $tables,
                'status' => IntakeStatus::Open, // its rows are to be read anew
                'counts' => null,
                'done' => 0,
                'problem' => null,
                'revision' => $intake->revision + 1,
            ]);

            return null;
        }, 5);
    }
}
