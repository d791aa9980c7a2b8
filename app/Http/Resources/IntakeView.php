<?php

namespace App\Http\Resources;

use App\Intakes\Looks;
use App\Intakes\Maps;
use App\Models\Intake;
use App\Models\IntakeFile;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;
use Vestigon\Core\Dialect\Dialect;

/**
 * An intake as a person sees it: its files, what its tables might mean, and what came of reading them.
 *
 * @mixin Intake
 */
final class IntakeView extends JsonResource
{
    public static $wrap;

    /** So many rows of each table are shown, and so many samples of each column. */
    private const ROWS = 8;

    public function __construct(Intake $intake, private readonly Dialect $dialect)
    {
        parent::__construct($intake);
    }

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        $maps = new Maps($this->resource, $this->dialect);
        // before its words: what a kept map says of them is known once it was taken for a table
        $tables = array_map(fn (array $look): array => $this->table($look, $maps), $this->tables ?? []);
        $words = ColumnWords::of($this->dialect);

        return [
            'id' => $this->id,
            'revision' => $this->revision,
            'status' => $this->status,
            'dialect' => $this->dialect->id,
            'platform' => $this->dialect->title,
            'account' => $this->account_id,
            'number' => $this->number,
            'name' => $this->name,
            'title' => $this->resource->map['title'] ?? "{$this->name}: export",
            'cells' => $maps->cells(),
            'words' => ['switches' => (object) $words['switches']] + $words,
            'files' => $this->resource->files->map(
                static fn (IntakeFile $f): array => [
                    'id' => $f->id,
                    'name' => $f->name,
                    'bytes' => $f->bytes,
                    'received' => $f->received,
                ],
            )->all(),
            'tables' => $tables,
            'done' => $this->done,
            'counts' => $this->counts === null
                ? null
                : [...$this->counts, 'problems' => (object) $this->counts['problems']],
            'problem' => $this->problem,
            'import' => $this->import_id,
        ];
    }

    /**
     * @param array<string, mixed> $look
     * @return array<string, mixed>
     */
    private function table(array $look, Maps $maps): array
    {
        $map = $look['first'] === []
            ? null
            : $maps->of($look['title'], $look['first'], Looks::headingAt($look));
        $at = $map['at'] ?? null;
        $headings = $at === null ? [] : array_map(strval(...), $look['first'][$at]);
        $body = $at === null ? [] : array_slice($look['first'], $at + 1);

        return [
            'title' => $look['title'],
            'file' => $look['file'],
            'form' => $look['form'],
            'use' => $look['use'],
            'problem' => $look['problem'],
            'headingRow' => $at === null ? null : $at + 1,
            'headings' => $headings,
            'rows' => array_slice($body, 0, self::ROWS),
            'from' => $map['from'] ?? null,
            'level' => $map['table']->level ?? null,
            'rowKind' => ($map['table']->rowKind ?? null) === null
                ? null
                : [
                    'column' => $map['table']->rowKind->heading,
                    'values' => (object) $map['table']->rowKind->levels,
                ],
            'columns' => array_map(ColumnWords::column(...), $map['columns'] ?? []),
        ];
    }
}
