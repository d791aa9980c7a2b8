<?php

namespace App\Bulk;

use App\Accounts\Selection;
use App\Accounts\Trees;
use App\Models\Account;
use Illuminate\Database\Eloquent\Builder;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Edit\Edit;
use Vestigon\Core\Edit\FindAndReplace;
use Vestigon\Core\Edit\RemoveParameter;
use Vestigon\Core\Edit\SetParameter;
use Vestigon\Core\Template\TemplateReader;

/** One edit on every text of a selection: words replaced, a parameter set or taken out. */
final readonly class Everywhere
{
    private const CHUNK = 2000;

    public function __construct(private Account $account) {}

    /**
     * @param array<string, mixed> $what
     * @return iterable<Text>
     *
     * @throws UnusableInput
     */
    public function texts(Selection $over, array $what): iterable
    {
        $edit = $this->edit($what);
        foreach ($what['slots'] ?? [] as $kind) {
            yield from $what['kind'] === 'set'
                ? $this->setting($over, $edit, SlotKind::from($kind))
                : $this->there($over->withAllBelow(), $edit, $kind);
        }
    }

    /** @param array<string, mixed> $what */
    private function edit(array $what): Edit
    {
        $reader = new TemplateReader(Trees::dialect($this->account));
        if (($what['slots'] ?? []) === []) {
            throw new UnusableInput('choose at least one slot');
        }
        if ($what['kind'] === 'set' && in_array('custom', $what['slots'], true)) {
            throw new UnusableInput(
                'a custom parameter has no parameters to set; find and replace its value instead',
            );
        }

        return match ($what['kind']) {
            'replace' => $what['pattern'] ?? false
                ? FindAndReplace::pattern((string) ($what['find'] ?? ''), (string) ($what['with'] ?? ''))
                : FindAndReplace::plain((string) ($what['find'] ?? ''), (string) ($what['with'] ?? '')),
            'set' => new SetParameter($reader, (string) ($what['key'] ?? ''), (string) ($what['value'] ?? '')),
            'remove' => new RemoveParameter($reader, (string) ($what['key'] ?? '')),
            default => throw new UnusableInput("there is no edit \"{$what['kind']}\""),
        };
    }

    /**
     * Texts that are there.
     *
     * @param Builder<\App\Models\Node> $nodes
     * @return iterable<Text>
     */
    private function there(Builder $nodes, Edit $edit, string $kind): iterable
    {
        $slot = SlotKind::tryFrom($kind);
        $query = $nodes
            ->join('texts', 'texts.node_id', 'nodes.id')
            ->where('texts.kind', $kind)
            ->whereNull('texts.until')
            ->toBase()
            ->select('texts.id', 'texts.node_id', 'texts.name', 'texts.text');
        foreach ($query->lazyById(self::CHUNK, 'texts.id', 'id') as $row) {
            yield new Text($row->node_id, $kind, $row->name, $row->text, $edit->of($slot, $row->text));
        }
    }

    /**
     * Sets on the elements themselves where their level has the slot; else on the widest level below them that has it.
     *
     * @return iterable<Text>
     */
    private function setting(Selection $over, Edit $edit, SlotKind $kind): iterable
    {
        $dialect = Trees::dialect($this->account);
        $has =
            $dialect->slot($kind)->levels ?? throw new UnusableInput("{$dialect->title} has no {$kind->value}");
        $picked = $over->picked()->distinct()->pluck('depth')->all();
        foreach ($picked as $depth) {
            $levels = array_values(
                array_filter(
                    $dialect->levels,
                    static fn ($l): bool => $l->depth >= $depth && in_array($l->id, $has, true),
                ),
            );
            if ($levels === []) {
                continue;
            }
            $nodes =
                $levels[0]->depth === $depth
                    ? $over->picked()->where('nodes.depth', $depth)
                    : $over->withAllBelow()->where('nodes.depth', $levels[0]->depth);
            $query = $nodes
                ->toBase()
                ->leftJoin(
                    'texts',
                    static fn ($j) => $j
                        ->on('texts.node_id', 'nodes.id')
                        ->where('texts.kind', $kind->value)
                        ->whereNull('texts.until'),
                )
                ->select('nodes.id', 'texts.text');
            foreach ($query->lazyById(self::CHUNK, 'nodes.id', 'id') as $row) {
                yield new Text($row->id, $kind->value, '', $row->text, $edit->of($kind, $row->text));
            }
        }
    }
}
