<?php

namespace App\Sheets;

use App\Accounts\Trees;
use App\Models\Account;
use App\Models\Text;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Sheet\Layout;
use Vestigon\Core\Sheet\OutTable;
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
        public array $looks,
        public array $layouts,
        public array $tables,
    ) {}

    public static function of(Account $account): self
    {
        $shape = $account->link->shape ?? throw new \LogicException("{$account->name} did not come as sheets");
        $dialect = Trees::dialect($account);
        $map = self::map($account);
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

        return new self($account, $dialect, $looks, $layouts, $tables);
    }

    /** The map that the sheets were read by. */
    public static function map(Account $account): SheetMap
    {
        return SheetMapReader::read(new Cursor($account->link->shape['map'] ?? []), Trees::dialect($account));
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
