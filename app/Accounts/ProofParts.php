<?php

namespace App\Accounts;

use App\Models\Account;
use App\Models\Node;
use App\Support\Beside;
use App\Support\Command;
use App\Support\Overtaken;

/** Proves an account's ads: few in this process, many shared out among several beside it. */
final readonly class ProofParts
{
    /** A process of its own takes a moment to begin: fewer ads for each are not worth it. */
    private const FEWEST = 20_000;

    public function __construct(private ProofPart $part) {}

    /**
     * @param int|null $processes null: as many as `PROCESSES` says, where there are ads enough
     * @return iterable<ProvenPart> in the order of the ads
     *
     * @throws Overtaken
     */
    public function prove(Account $account, ProofTurn $turn, ?int $processes): iterable
    {
        $parts = self::divided($account, $processes);

        return count($parts) === 1
            ? [$this->part->prove($account, $turn, $parts[0])]
            : self::beside($turn, $parts);
    }

    /** @return list<Between> of about as many ads each */
    private static function divided(Account $account, ?int $processes): array
    {
        $ads = Node::query()->where(['account_id' => $account->id, 'is_ad' => true]);
        $count = $ads->clone()->count();
        $processes ??= max(1, min((int) config('queue.processes'), intdiv($count, self::FEWEST)));
        $parts = [];
        $above = 0;
        for ($i = 1; $i < $processes; $i++) {
            $upTo = (int) $ads
                ->clone()
                ->orderBy('id')
                ->offset(intdiv($count * $i, $processes))
                ->value('id');
            $parts[] = new Between($above, $upTo);
            $above = $upTo;
        }
        $parts[] = new Between($above);

        return $parts;
    }

    /**
     * @param list<Between> $parts
     * @return list<ProvenPart>
     *
     * @throws Overtaken
     */
    private static function beside(ProofTurn $turn, array $parts): array
    {
        $command = static fn (Between $part): Command => new Command(
            "proof:part {$turn->account} {$turn->number} {$part->above} {$part->upTo}",
        );

        return Beside::run(array_map($command, $parts), ProvenPart::class);
    }
}
