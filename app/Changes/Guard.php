<?php

namespace App\Changes;

use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Client;
use App\Models\User;
use App\Models\WriteState;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Gate;

/** Says which steps a person may take with a change now, and why not the others. */
final readonly class Guard
{
    public const WORKED_OUT_AGAIN = 'This change has been worked out again since you opened it. Look at it anew.';

    private ?int $planRevision;

    public function __construct(private Client $client, private Change $change, private User $user)
    {
        $this->planRevision = $client->plan()?->revision;
    }

    /** @return list<string> the steps that are open to the person: what the interface draws its keys from */
    public function open(): array
    {
        $open = [];
        $gate = Gate::forUser($this->user);
        $abilities = array_filter(['edit', 'review'], fn (string $a): bool => $gate->allows($a, $this->client));
        foreach (Move::cases() as $move) {
            $isTheirs = in_array($move->ability(), $abilities, true);
            if ($isTheirs && $this->isAskedFor($move) && $this->forbids($move) === null) {
                $open[] = $move->value;
            }
        }

        return $open;
    }

    /** Where nobody has to say yes, nobody is asked. */
    private function isAskedFor(Move $move): bool
    {
        return match ($move) {
            Move::Approve => $this->client->needs_approval && $this->change->approved_by === null,
            Move::Refuse => $this->client->needs_approval,
            default => true,
        };
    }

    /**
     * Why a step can't be taken; null: it can, as far as the change itself goes.
     *
     * @param int|null $draft the working out that the person saw
     */
    public function forbids(Move $move, ?int $draft = null): ?Forbidden
    {
        $own = $this->change->user_id === $this->user->id;

        return match (true) {
            $draft !== null && $draft !== $this->change->draft => new Forbidden(409, self::WORKED_OUT_AGAIN),
            $move === Move::Refuse && $own => new Forbidden(403, 'This change is your own. Drop it instead.'),
            ! in_array($this->change->status, $move->beginsIn(), true) => new Forbidden(
                409,
                $move->refusal($this->change),
            ),
            $move === Move::Approve && $own => new Forbidden(
                403,
                'This change is your own. Another person has to approve it.',
            ),
            $move === Move::Approve && $this->planRevision !== $this->change->plan_revision => new Forbidden(
                409,
                'The plan has changed since this change was worked out. It has to be worked out again.',
            ),
            $move === Move::Start && $this->change->status === ChangeStatus::Ready => $this->forbidsBeginning(),
            $move === Move::End && $this->change->stage !== 'rest' => new Forbidden(
                409,
                $move->refusal($this->change),
            ),
            $move === Move::TakeBack => $this->forbidsTakingBack(),
            default => null,
        };
    }

    /** Who says yes has opened every sample. */
    public function lacksLooks(): ?Forbidden
    {
        $samples = $this->change->samples();
        $opened = DB::table('change_looks')
            ->where([
                'change_id' => $this->change->id,
                'user_id' => $this->user->id,
                'draft' => $this->change->draft,
            ])
            ->whereIn('node_id', $samples)
            ->count();

        return $opened < count($samples)
            ? new Forbidden(422, "Open the samples first: {$opened} of ".count($samples).' have been.')
            : null;
    }

    private function forbidsBeginning(): ?Forbidden
    {
        $why = match (true) {
            $this->planRevision !== $this->change->plan_revision => 'The plan has changed since this '
                .'change was worked out. Work it out again.',
            $this->client->needs_approval && $this->change->approved_by === null => "{$this->client->name} "
                .'wants another person’s approval before anything is written.',
            ! $this->change->writes()->exists() => 'There is nothing to write.',
            default => null,
        };

        return $why === null ? null : new Forbidden(409, $why);
    }

    private function forbidsTakingBack(): ?Forbidden
    {
        $isSent = $this->change->writes()->reorder()->where('state', WriteState::Sent)->exists();

        return $isSent
            ? new Forbidden(
                409,
                'A batch was sent and the platform has not said what became of it. Go on first, so that it is known.',
            )
            : null;
    }
}
