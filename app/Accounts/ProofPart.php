<?php

namespace App\Accounts;

use App\Agreements\Agreements;
use App\Dialects\Dialects;
use App\Events\WorkWentOn;
use App\Models\Account;
use App\Outside\Effects;
use App\Support\Bulk;
use App\Support\Overtaken;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Proof\Verdict;

/** Proves some of an account's ads and keeps the verdicts that are not what was kept. */
final readonly class ProofPart
{
    private const CHUNK = 2000;

    private const COLUMNS = ['state' => 'varchar(12)', 'fault' => 'varchar(500)', 'fault_keys' => 'varchar(255)'];

    public function __construct(private Dialects $dialects, private Agreements $agreements) {}

    public function survey(Account $account): Survey
    {
        return new Survey(
            Trees::wide($account),
            $account->client->plan()?->agreed(),
            $this->dialects->rules($this->agreements->names($account->client_id)),
        );
    }

    /** @throws Overtaken */
    public function prove(Account $account, ProofTurn $turn, Between $ads): ProvenPart
    {
        $survey = $this->survey($account);
        $counts = new Counts();
        $effects = Effects::waiting($account);
        $moved = [];
        $done = 0;
        foreach (Trees::each($account, true, $ads) as $row => $ad) {
            $verdict = $survey->ad($ad, (string) $row->parent_id);
            $now = [
                'state' => $verdict?->state->value,
                'fault' => self::first($verdict),
                'fault_keys' => self::keys($verdict),
            ];
            $counts->ad($row->parent_id, $now['state']);
            if (
                $row->state !== $now['state']
                || $row->fault !== $now['fault']
                || $row->fault_keys !== $now['fault_keys']
            ) {
                $moved[] = ['id' => $row->id, ...$now];
                $effects?->ad($row->id, $row->parent_id, $row->state, $now['state']);
            }
            if (++$done % self::CHUNK === 0) {
                $turn->during(static fn () => Bulk::updateAlike('nodes', self::COLUMNS, $moved), alone: false);
                $moved = [];
                WorkWentOn::dispatch();
            }
        }
        $turn->during(static fn () => Bulk::updateAlike('nodes', self::COLUMNS, $moved), alone: false);

        return new ProvenPart($survey->gathered(), $counts, $effects?->turned());
    }

    private static function first(?Verdict $verdict): ?string
    {
        return isset($verdict?->counterexamples[0])
            ? mb_substr(mb_scrub($verdict->counterexamples[0]->reason), 0, 500)
            : null;
    }

    private static function keys(?Verdict $verdict): string
    {
        $keys = [];
        foreach ($verdict->counterexamples ?? [] as $c) {
            $keys[$c->key] = mb_scrub($c->key);
        }
        unset($keys['']);
        $keys = implode(',', $keys);

        return strlen($keys) <= 255 ? $keys : substr($keys, 0, (int) strrpos(substr($keys, 0, 255), ','));
    }
}
