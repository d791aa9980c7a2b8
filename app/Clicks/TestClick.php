<?php

namespace App\Clicks;

use App\Accounts\Branches;
use App\Accounts\SampleClick;
use App\Accounts\Show;
use App\Accounts\StoredTexts;
use App\Accounts\Trees;
use App\Connectors\Connector;
use App\Connectors\PlatformTrouble;
use App\Models\Account;
use Vestigon\Core\Findings\Flaw;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\RealClick;
use Vestigon\Core\Url\Query;

/**
 * Clicks a live ad and gives two answers: did every hop answer, and did the page arrive with everything on it.
 *
 * One can fail without the other.
 */
final readonly class TestClick
{
    public function __construct(private Account $account, private Connector $connector, private Plan $plan) {}

    /**
     * @return array{
     *     node: int, name: string, where: string, steps: list<array<string, mixed>>, answered: bool,
     *     arrived: bool, foreseen: bool, arrival: list<array{string, string}>,
     *     faults: list<array{key: string, reason: string}>, clickId: string
     * }
     *
     * @throws PlatformTrouble the platform made no click
     */
    public function of(int $ad): array
    {
        $branch = Branches::of($this->account, $ad);
        $path = $branch->path($ad);
        $click = $this->connector->click(
            $this->account->link,
            $this->account->external_id,
            $path->last()->id,
            array_diff_key(SampleClick::of($path, $branch->keywords($ad)), ['click.id' => 1]),
        );
        $steps = (new Follower(new Gate($this->account->client->hosts ?? [])))->follow($click->url);
        $last = $steps[count($steps) - 1];
        $real = new RealClick(
            array_map(static fn (Step $s): string => $s->url, $steps),
            $last->problem === null,
            $click->context,
            $path,
            $this->plan,
            StoredTexts::settings($this->account),
            Trees::hops($this->account),
        );
        $faults = $real->faults();

        return [
            'node' => $ad,
            'name' => $path->last()->name,
            'where' => Show::where($path),
            'steps' => array_map(static fn (Step $s): array => $s->toArray(), $steps),
            'answered' => $last->problem === null,
            'arrived' => $last->problem === null && $faults === [],
            'foreseen' => $last->problem === null && $real->surprises() === [],
            'arrival' => $last->problem === null ? Query::read($last->url) : [],
            'faults' => array_map(
                static fn (Flaw $f): array => ['key' => (string) $f->key, 'reason' => $f->reason],
                $faults,
            ),
            'clickId' => $click->id,
        ];
    }
}
