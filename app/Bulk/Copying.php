<?php

namespace App\Bulk;

use App\Accounts\Selection;
use App\Models\Account;
use App\Models\Node;
use App\Models\Text as LiveText;
use Vestigon\Core\Document\UnusableInput;

/** The tracking texts of one element on others of its level, in place of theirs. */
final readonly class Copying
{
    /** @param \Closure(string): void $report */
    public function __construct(private Account $account, private \Closure $report) {}

    /**
     * @param list<string> $slots
     * @return iterable<Text>
     */
    public function texts(Selection $over, int $from, array $slots): iterable
    {
        $source =
            Node::query()->where('account_id', $this->account->id)->find($from)
            ?? throw new UnusableInput('choose the element whose texts are to be copied');
        if ($slots === []) {
            throw new UnusableInput('choose at least one slot');
        }
        if (in_array('landing', $slots, true)) {
            throw new UnusableInput(
                'landing URLs are each ad’s own; choose templates, suffixes or custom parameters',
            );
        }
        $texts = self::byPlace($source->id, $slots);
        if ($texts === []) {
            ($this->report)(
                "{$source->name} has no such text of its own: what the others have there would be cleared.",
            );
        }
        $others = 0;
        foreach ($over->picked()->whereKeyNot($source->id)->lazyById(500, 'nodes.id', 'id') as $node) {
            if ($node->level !== $source->level) {
                $others++;

                continue;
            }
            $own = self::byPlace($node->id, $slots);
            foreach ($own + $texts as $place => $ignored) {
                [$kind, $name] = explode(' ', $place, 2);
                yield new Text($node->id, $kind, $name, $own[$place] ?? null, $texts[$place] ?? null);
            }
        }
        if ($others > 0) {
            ($this->report)(
                "{$others} of the chosen elements are not on the level of {$source->name}; they are left alone.",
            );
        }
    }

    /**
     * @param list<string> $slots
     * @return array<string, string> kind and name → text
     */
    private static function byPlace(int $node, array $slots): array
    {
        return LiveText::query()
            ->where('node_id', $node)
            ->whereIn('kind', $slots)
            ->whereNull('until')
            ->get()
            ->mapWithKeys(static fn (LiveText $t): array => ["{$t->kind} {$t->name}" => $t->text])
            ->all();
    }
}
