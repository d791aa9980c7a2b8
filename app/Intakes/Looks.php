<?php

namespace App\Intakes;

use App\Models\Intake;
use App\Models\IntakeFile;
use App\Sheets\Files\FirstRows;
use App\Sheets\Files\Form;
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
        $looks = array_map(static fn (array $look): array => self::asTold($intake, $look), $looks);
        $titles = array_count_values(array_map(static fn (array $l): string => mb_strtolower($l['title']), $looks));

        return array_map(
            static fn (array $l): array => $titles[mb_strtolower($l['title'])] > 1
                ? [...$l, 'title' => "{$l['name']}: {$l['title']}"]
                : $l,
            $looks,
        );
    }

    /**
     * What a person has said of a table holds when other files come.
     *
     * @param array<string, mixed> $look
     * @return array<string, mixed>
     */
    private static function asTold(Intake $intake, array $look): array
    {
        foreach ($intake->tables ?? [] as $before) {
            $told = $before['told'] ?? [];
            if ($told !== [] && [$before['file'], $before['at']] === [$look['file'], $look['at']]) {
                return self::again($intake->files->firstWhere('id', $look['file']), $look, $told);
            }
        }

        return $look;
    }

    /**
     * One table looked at anew, as a person has said that it stands in its file.
     *
     * @param array<string, mixed> $look as of() has it
     * @param array{headingRow?: int|null, delimiter?: string|null, encoding?: string|null} $told
     * @return array<string, mixed>
     *
     * @throws UnusableInput
     */
    public static function again(IntakeFile $file, array $look, array $told): array
    {
        $table = Opening::tables($file->path(), $file->name, self::told(['told' => $told]))[$look['at']];

        return [
            ...$look,
            'form' => $table->form()->toArray(),
            'first' => self::first($table),
            'use' => true,
            'problem' => null,
            'told' => array_filter($told, static fn (mixed $v): bool => $v !== null),
        ];
    }

    /**
     * What a person has said of how a table stands in its file.
     *
     * @param array<string, mixed> $look
     */
    public static function told(array $look): Form
    {
        return new Form('csv', $look['told']['delimiter'] ?? null, $look['told']['encoding'] ?? null);
    }

    /**
     * @param array<string, mixed> $look
     * @return int|null the place of the heading row that a person has named
     */
    public static function headingAt(array $look): ?int
    {
        return isset($look['told']['headingRow']) ? (int) $look['told']['headingRow'] - 1 : null;
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
