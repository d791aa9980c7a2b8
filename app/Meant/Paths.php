<?php

namespace App\Meant;

use App\Accounts\Branch;
use App\Accounts\Branches;
use App\Models\Account;
use App\Watching\Elements;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Account\Path;

/** Where ads stand, with the names of today, or with those of a moment. */
final class Paths
{
    /** So many are kept at hand. */
    private const AT_HAND = 20_000;

    /** @var array<string, Path> by ad, and by the names that it is told by */
    private array $paths = [];

    /** @var array<int, list<int>> ad → all nodes of its path */
    private array $nodes = [];

    /** @var array<int, array<int, list<string>>> account → node → when it was renamed */
    private array $renamed = [];

    /** @var array<int, Account> by ad */
    private array $accounts = [];

    public function __construct(private readonly Elements $elements, private readonly bool $isThen) {}

    /** @param list<int> $ads that will be asked for */
    public function expect(array $ads): void
    {
        if (count($this->nodes) > self::AT_HAND) {
            $this->paths = $this->nodes = [];
        }
        $byAccount = [];
        foreach ($this->elements->above(array_values(array_diff($ads, array_keys($this->nodes)))) as $ad => $of) {
            $byAccount[$of['account_id']][] = $ad;
        }
        foreach ($byAccount as $account => $some) {
            $of = Account::query()->findOrFail($account);
            $this->renamed[$account] ??= $this->isThen ? self::renamed($account) : [];
            $branch = Branches::of($of, ...$some);
            foreach ($some as $ad) {
                $this->nodes[$ad] = $branch->ids($ad);
                $this->accounts[$ad] = $of;
                $this->paths[(string) $ad] = $branch->path($ad);
            }
        }
    }

    /** @param string $at as the database has it; null: the ad is not known any more */
    public function of(int $ad, string $at): ?Path
    {
        if (! isset($this->nodes[$ad])) {
            return null;
        }
        $next = null;
        foreach ($this->nodes[$ad] as $node) {
            foreach ($this->renamed[$this->accounts[$ad]->id][$node] ?? [] as $until) {
                $next = $until > $at && ($next === null || $until < $next) ? $until : $next;
            }
        }

        return $next === null
            ? $this->paths[(string) $ad]
            : $this->paths["{$ad} {$next}"] ??= $this->branchAt($ad, $at)->path($ad);
    }

    private function branchAt(int $ad, string $at): Branch
    {
        return Branches::at($this->accounts[$ad], CarbonImmutable::parse($at, 'UTC'), $ad);
    }

    /** @return array<int, list<string>> */
    private static function renamed(int $account): array
    {
        $renamed = [];
        foreach (DB::table('former_names')->where('account_id', $account)->get(['node_id', 'until']) as $row) {
            $renamed[$row->node_id][] = $row->until;
        }

        return $renamed;
    }
}
