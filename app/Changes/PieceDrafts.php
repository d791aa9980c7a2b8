<?php

namespace App\Changes;

use App\Events\WorkWentOn;
use App\Support\Beside;
use App\Support\Command;
use App\Support\Overtaken;
use Vestigon\Core\Compile\Decided;
use Vestigon\Core\Compile\Objections;
use Vestigon\Core\Compile\Progress;

/** Works the pieces of a change out after what has been decided above them, in several processes beside this one. */
final readonly class PieceDrafts
{
    public function __construct(private Brief $brief, private DraftTurn $turn) {}

    /**
     * @param list<Piece> $pieces
     *
     * @throws Overtaken
     */
    public function work(array $pieces, Decided $decided): ToldPieces
    {
        $this->turn->tell('working out every piece of the account', 0);
        $shares = [];
        $processes = max(1, (int) config('queue.processes'));
        foreach ($pieces as $i => $piece) {
            $shares[$i % $processes][] = $piece;
        }
        $commands = array_map(
            fn (array $share): Command => new Command(
                "draft:pieces {$this->turn->change}",
                serialize([$this->turn, $decided, $share]),
            ),
            $shares,
        );
        $all = Beside::run(array_values($commands), ToldPieces::class, $this->turn->stillWanted(...));

        return array_reduce(
            $all,
            static fn (ToldPieces $all, ToldPieces $one): ToldPieces => $all->and($one),
            new ToldPieces([], new Objections(), 0),
        );
    }

    /**
     * One process's share.
     *
     * @param list<Piece> $pieces
     *
     * @throws Overtaken
     */
    public function share(array $pieces, Decided $decided): ToldPieces
    {
        $draft = new PieceDraft($this->brief, $this->turn, $decided);
        $stories = [];
        $objections = new Objections();
        foreach ($pieces as $piece) {
            $worked = $draft->work($piece, new Progress(static function (): void { WorkWentOn::dispatch(); }));
            $stories[$piece->number] = $worked->told;
            $objections = $objections->and(Objections::in($worked->compiled));
            $this->turn->further(array_sum($worked->told->states['before']));
            unset($worked); // else two pieces are held
        }

        return new ToldPieces($stories, $objections, memory_get_peak_usage(true));
    }
}
