<?php

namespace App\Jobs;

use App\Dialects\Dialects;
use App\Intakes\Reading;
use App\Models\Intake;
use App\Models\IntakeStatus;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Queue\Middleware\WithoutOverlapping;
use Vestigon\Core\Document\UnusableInput;

/** Reads every row of an intake, as it was when this was asked for. */
final class ReadIntake implements ShouldQueue
{
    use Queueable;

    public int $timeout = 3600;

    public int $tries = 5;

    public function __construct(public int $intake, public int $revision) {}

    /** @return list<object> */
    public function middleware(): array
    {
        return [(new WithoutOverlapping("intake {$this->intake}"))->releaseAfter(2)->expireAfter(3600)];
    }

    public function handle(Dialects $dialects): void
    {
        $intake = Intake::query()->with('client', 'account')->find($this->intake);
        if (
            $intake === null
            || $intake->revision !== $this->revision
            || $intake->status !== IntakeStatus::Reading
        ) {
            return; // it was changed or given up since
        }
        try {
            (new Reading($intake, $dialects->of($intake->client_id, $intake->dialect)))->run();
        } catch (UnusableInput $e) {
            $this->ends($e->getMessage().'.');
        }
    }

    public function failed(?\Throwable $e): void
    {
        $this->ends(
            'Reading stopped by a fault of ours. Your files and what you said of them are still there; try again.',
        );
    }

    private function ends(string $problem): void
    {
        Intake::query()
            ->whereKey($this->intake)
            ->where(['revision' => $this->revision, 'status' => IntakeStatus::Reading])
            ->update(['status' => IntakeStatus::Open, 'problem' => $problem]);
    }
}
