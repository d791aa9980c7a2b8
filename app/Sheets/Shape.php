<?php

namespace App\Sheets;

use App\Accounts\Trees;
use App\Models\Account;
use App\Models\Text;
use App\Sheets\Files\Form;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Sheet\Layout;
use Vestigon\Core\Sheet\OutTable;
use Vestigon\Core\Sheet\PlainMap;
use Vestigon\Core\Sheet\SheetMap;
use Vestigon\Core\Sheet\SheetMapReader;

/** The shape of the sheets that an account came in: what can go out in it, and where. */
final readonly class Shape
{
    /**
     * @param list<array<string, mixed>> $looks what each table looked like
     * @param list<Layout> $layouts
     * @param list<OutTable> $tables
     */
    private function __construct(
        private Account $account,
        private Dialect $dialect,
        public SheetMap $map,
        public array $looks,
        public array $layouts,
        public array $tables,
    ) {}

    /**
     * @param array{map: array<string, mixed>, tables: list<array<string, mixed>>}|null $shape another than the one that
     *     the account came in
     */
    public static function of(Account $account, ?array $shape = null): self
    {
        $shape ??= $account->link->shape ?? throw new \LogicException("{$account->name} did not come as sheets");
        $dialect = Trees::dialect($account);
        $map = SheetMapReader::read(new Cursor($shape['map']), $dialect);
        $looks = $layouts = $tables = [];
        foreach ($shape['tables'] as $look) {
            $layout = Layout::in($map, $look['title'], $look['first'], $look['headingAt'] ?? null);
            if ($layout !== null) {
                [$looks[], $layouts[]] = [$look, $layout];
                $headings = $look['first'][$layout->at];
                $tables[] = new OutTable(
                    $look['title'],
                    $headings,
                    $map,
                    $layout->map,
                    $dialect,
                    $account->external_id,
                );
            }
        }

        return new self($account, $dialect, $map, $looks, $layouts, $tables);
    }

    /**
     * For an account that did not come as sheets: a shape with all columns of a map.
     *
     * @param int|null $map one that was kept; null: the plain one
     * @param string $as csv, tsv, xlsx or ods
     */
    public static function mapped(Account $account, ?int $map, string $as): self
    {
        $document =
            $map === null
                ? PlainMap::of(Trees::dialect($account))
                : $account->client->sheetMaps()->where('dialect', $account->dialect)->findOrFail($map)->document;
        $form = $as === 'tsv' ? new Form('csv', "\t") : new Form($as);

        return self::of($account, [
            'map' => $document,
            'tables' => array_map(
                static fn (array $table): array => [
                    'title' => $table['title'] ?? '',
                    'name' => $as === 'csv' || $as === 'tsv' ? "{$table['title']}.{$as}" : "texts.{$as}",
                    'form' => $form->toArray(),
                    'headingAt' => 0,
                    'first' => [
                        [
                            ...isset($table['rowKind']) ? [$table['rowKind']['column']] : [],
                            ...array_column($table['columns'], 'heading'),
                        ],
                    ],
                ],
                $document['tables'],
            ),
        ]);
    }

    /**
     * The platform as these sheets can write it: without the places that they have no column for, unless something is
     * known to stand there.
     */
    public function narrowed(): Dialect
    {
        $said = Text::query()
            ->join('nodes', 'nodes.id', 'texts.node_id')
            ->where('nodes.account_id', $this->account->id)
            ->whereNull('texts.until')
            ->distinct()
            ->toBase()
            ->get(['nodes.level', 'texts.kind'])
            ->mapWithKeys(static fn (object $t): array => ["{$t->kind} {$t->level}" => true]);

        return $this->dialect->within(
            fn (SlotKind $kind, string $level): bool => isset($said["{$kind->value} {$level}"])
                || $this->takes(Write::slot('', $kind, null, 'x'), $level),
            fn (string $level): bool => isset($said["custom {$level}"])
                || $this->takes(Write::custom('', 'x', null, 'x'), $level),
        );
    }

    /** Can the sheets say all that the account switches? */
    public function switches(): bool
    {
        $account = $this->dialect->levels[0]->id;
        foreach (Setting::cases() as $setting) {
            foreach ($setting->choices($this->dialect) as $choice) {
                if (! $this->takes(Write::setting('', $setting, null, $choice), $account)) {
                    return false;
                }
            }
        }

        return true;
    }

    private function takes(Write $write, string $level): bool
    {
        foreach ($this->tables as $table) {
            if ($table->columnFor($write, $level) !== null) {
                return true;
            }
        }

        return false;
    }
}
