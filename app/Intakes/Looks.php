<?php

namespace App\Intakes;

use App\Models\Intake;
use App\Models\IntakeFile;
use App\Sheets\Files\FirstRows;
use App\Sheets\Files\Opening;
use App\Sheets\Files\Table;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Sheet\HeadingRow;
use Vestigon\Core\Sheet\Suggestion;

/** What the tables of an intake look like: their first rows, and how they stand in their files. */
final class Looks
{
    private const ROWS = HeadingRow::WITHIN + Suggestion::ROWS;

    private const CELL = 300;

    /**
     * @return list<array{file: int, name: string, at: int, title: string, form: array<string, mixed>|null,
     *     first: list<list<string|int|float|null>>, use: bool, problem: string|null}> a file that can't be read is one
     *     without rows, with the problem
     */
    public static function of(Intake $intake): array
    {
        $looks = [];
        foreach ($intake->files as $file) {
            array_push($looks, ...self::ofFile($file->setRelation('intake', $intake)));
        }
        $titles = array_count_values(array_map(static fn (array $l): string => mb_strtolower($l['title']), $looks));

        return array_map(
            static fn (array $l): array => $titles[mb_strtolower($l['title'])] > 1
                ? [...$l, 'title' => "{$l['name']}: {$l['title']}"]
                : $l,
            $looks,
        );
    }

    /** @return list<array<string, mixed>> */
    private static function ofFile(IntakeFile $file): array
    {
        $looks = [];
        try {
            foreach (Opening::tables($file->path(), $file->name) as $at => $table) {
                $looks[] = [
                    'file' => $file->id,
                    'name' => $file->name,
                    'at' => $at,
                    'title' => mb_strimwidth($table->title(), 0, 100, '…'),
                    'form' => $table->form()->toArray(),
                    'first' => self::first($table),
                    'use' => true,
                    'problem' => null,
                ];
            }
        } catch (UnusableInput $e) {
            return [
                [
                    'file' => $file->id,
                    'name' => $file->name,
                    'at' => 0,
                    'title' => $file->name,
                    'form' => null,
                    'first' => [],
                    'use' => false,
                    'problem' => $e->getMessage().'.',
                ],
            ];
        }

        return $looks;
    }

    /** @return list<list<string|int|float|null>> */
    private static function first(Table $table): array
    {
        $shown = static fn (string|int|float|null $c): string|int|float|null => is_string($c)
            ? mb_strimwidth(mb_scrub($c), 0, self::CELL, '…')
            : $c;

        return array_map(static fn (array $row): array => array_map($shown, $row), FirstRows::of($table, self::ROWS));
    }
}
