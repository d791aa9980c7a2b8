<?php

namespace App\Changes;

use App\Accounts\Trees;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Compile\BySafety;
use Vestigon\Core\Compile\Compiled;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Decided;
use Vestigon\Core\Compile\InParts;
use Vestigon\Core\Compile\Progress;
use Vestigon\Core\Compile\Write;

/** Works a piece of a change out: its writes, and what is told of it. */
final class PieceDraft
{
    private ?InParts $inParts = null;

    private readonly DraftedWrites $writes;

    /** @param Decided|null $decided what is written above the pieces; null: there is one piece, with all of it */
    public function __construct(
        private readonly Brief $brief,
        private readonly DraftTurn $turn,
        private readonly ?Decided $decided,
    ) {
        $this->writes = new DraftedWrites($brief->change, $turn);
    }

    public function work(Piece $piece, Progress $progress): WorkedPiece
    {
        $before = $this->brief->writable(Trees::around($this->brief->change->account, $piece->tops, $progress));
        $compiled = $this->compiled($before, array_map(strval(...), $piece->tops), $progress);
        $compiled = $compiled->inOrder(BySafety::ordered($compiled->writes, $before->dialect));
        $above = $this->decided?->writesIn($before) ?? [];
        $after = Write::applied($before, [...$above, ...$compiled->writes]);
        $story = new Story($before, $after, $this->brief->plan, $compiled, $above, $this->brief->byHand);
        $told = $story->tell($progress);
        $progress->step('noting the writes');
        $this->writes->add($piece->number, $compiled->writes);

        return new WorkedPiece($before, $compiled, $told);
    }

    /** @param list<string> $tops */
    private function compiled(Account $before, array $tops, Progress $progress): Compiled
    {
        return match (true) {
            $this->brief->byHand => new Compiled($this->chosen($before), [], [], []),
            $this->decided === null => Compiler::compile(
                $before,
                $this->brief->plan,
                $this->brief->policy(),
                $progress,
            ),
            default => ($this->inParts ??= $this->brief->inParts())->part(
                $before,
                $tops,
                $this->decided,
                $progress,
            ),
        };
    }

    /** @return list<Write> the texts that a person chose, but for those above the pieces */
    private function chosen(Account $before): array
    {
        $above = array_column($this->decided->writes ?? [], null, 'node');

        return array_values(
            array_filter(
                ChosenTexts::of($this->brief->change, $before),
                static fn (Write $w): bool => ! isset($above[$w->node]),
            ),
        );
    }
}
