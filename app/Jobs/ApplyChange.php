<?php

namespace App\Jobs;

use App\Changes\Application;
use App\Changes\Lease;
use App\Changes\Move;
use App\Connectors\Connectors;
use App\Connectors\PlatformTrouble;
use App\Models\Change;
use Illuminate\Contracts\Queue\ShouldBeUniqueUntilProcessing;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Database\LostConnectionDetector;
use Illuminate\Foundation\Queue\Queueable;

/**
 * Carries out the stage of a change that is due, then has its account proven anew.
 *
 * Started twice, one of the two finds the other at it and ends. If its worker dies, or another change of the account is
 * at work, `changes:go-on` starts it again. Whatever goes wrong: the change says so, nobody holds it, and it can be
 * gone on with.
 */
final class ApplyChange implements ShouldBeUniqueUntilProcessing, ShouldQueue
{
    use Queueable;

    public int $timeout = 7200;

    public int $tries = 3;

    public int $uniqueFor = 60;

    public function __construct(public int $change) {}

    public function uniqueId(): string
    {
        return (string) $this->change;
    }

    public function handle(Connectors $connectors): void
    {
        $change = Change::query()->with('account.link', 'account.client')->findOrFail($this->change);
        $lease = Lease::take($change);
        if ($lease === null) {
            return;
        }
        $change->refresh();
        try {
            if ($change->begun > Lease::MOST_BEGINNINGS) {
                self::stop(
                    $change,
                    'A step of it was begun '
                        .Lease::MOST_BEGINNINGS
                        .' times and got no further; its worker ended each time. What was written is noted; go '
                        .'on from '
                        .'here once it is known why.',
                );
            } else {
                (new Application($change, $connectors->to($change->account->link), $lease))->run();
            }
        } catch (PlatformTrouble $e) {
            self::stop(
                $change,
                $e->getMessage().' What was written is noted; go on from here when it is back.',
            );
        } catch (\Throwable $e) {
            if (app(LostConnectionDetector::class)->causedByLostConnection($e)) {
                throw $e; // with the database back, the watch goes on from here
            }
            self::stop(
                $change,
                'Applying stopped by a fault of ours. What was written is noted; go on from here.',
            );
            report($e);
        } finally {
            $lease->release();
        }
        ProveAccount::dispatch($change->account_id);
    }

    public function failed(?\Throwable $e): void
    {
        $change = Change::query()->find($this->change);
        $change !== null
            && self::stop(
                $change,
                'Applying stopped by a fault of ours. What was written is noted; go on from here.',
            );
    }

    private static function stop(Change $change, string $why): void
    {
        $change->take(Move::Stop, ['problem' => $why, 'finished_at' => now()]);
    }
}
