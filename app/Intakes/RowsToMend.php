<?php

namespace App\Intakes;

use App\Models\Intake;
use App\Models\IntakeFile;
use App\Sheets\Files\Form;
use App\Sheets\Files\Opening;
use App\Sheets\Files\Writing;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Findings\Severity;

/**
 * The rows of an intake with errors, in the shape that they came in, with what is wrong beside them: mended, they
 * can be dropped again.
 */
final readonly class RowsToMend
{
    private const WRONG = 'what is wrong';

    public function __construct(private Intake $intake, private Dialect $dialect) {}

    /** @return array{path: string, name: string, type: string}|null a temporary file; null: no row has one */
    public function file(): ?array
    {
        $files = [];
        foreach ($this->intake->tables ?? [] as $at => $look) {
            if ($look['use'] && $this->wrong($at)->exists()) {
                $files[$look['name']][] = [
                    'title' => $look['title'],
                    'form' => new Form(...$look['form']),
                    'rows' => fn (): iterable => $this->rows($look, $at),
                ];
            }
        }

        return $files === [] ? null : Writing::files($files, "rows-to-mend-{$this->intake->id}");
    }

    /**
     * @param array<string, mixed> $look
     * @return iterable<list<string|int|float|null>>
     */
    private function rows(array $look, int $at): iterable
    {
        $file = IntakeFile::query()->findOrFail($look['file'])->setRelation('intake', $this->intake);
        $heading = (new Maps($this->intake, $this->dialect))
            ->of($look['title'], $look['first'], Looks::headingAt($look))['at'] ?? 0;
        $wrong = $this->wrong($at)->orderBy('row')->orderBy('id')->lazy(1000)->getIterator();
        $number = $width = 0;
        foreach (Opening::tables($file->path(), $file->name, Looks::told($look))[$look['at']]->rows() as $cells) {
            $number++;
            if ($number <= $heading + 1) {
                $width = max($width, count($cells));
                yield $number <= $heading ? $cells : [...array_pad($cells, $width, null), self::WRONG];

                continue;
            }
            $says = [];
            while ($wrong->valid() && $wrong->current()->row <= $number) {
                $says[] = $wrong->current()->row === $number
                    ? trim("{$wrong->current()->column}: {$wrong->current()->says}", ' :')
                    : '';
                $wrong->next();
            }
            if (implode('', $says) !== '') {
                yield [...array_pad($cells, $width, null), implode(' ', $says)];
            }
            if (! $wrong->valid()) {
                break;
            }
        }
    }

    /** What is wrong with rows of a table. */
    private function wrong(int $table): Builder
    {
        return DB::table('intake_problems')->where([
            'intake_id' => $this->intake->id,
            'table' => $table,
            'severity' => Severity::Error->value,
        ]);
    }
}
