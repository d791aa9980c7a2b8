<?php

namespace Tests\Feature;

use App\Changes\Move;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Role;
use App\Models\WriteState;
use Illuminate\Support\Facades\Queue;
use Tests\TestCase;

/** A change moves by the table of its steps, and by nothing else. */
final class StepsTest extends TestCase
{
    private function change(): Change
    {
        $this->imported();
        $this->planned();

        return $this->inLine($this->client->accounts()->firstOrFail());
    }

    /** @return list<string> */
    private function may(Change $change, ?\App\Models\User $person = null): array
    {
        return $this->api('GET', "/changes/{$change->id}", [], $person)
            ->assertOk()
            ->json('may');
    }

    public function test_each_step_is_taken_from_its_states_alone_and_under_its_own_working_out(): void
    {
        $change = $this->change();
        foreach (Move::cases() as $move) {
            foreach (ChangeStatus::cases() as $status) {
                Change::query()
                    ->whereKey($change->id)
                    ->update(['status' => $status]);
                $change->refresh();
                $becomes = in_array($status, $move->beginsIn(), true) ? $move->leadsTo($change) : $status;
                $seen = $change->replicate()->setRawAttributes([
                    'id' => $change->id,
                    'draft' => $change->draft - 1,
                    'stage' => $change->stage,
                    'status' => $status->value,
                ]);

                self::assertFalse(
                    $seen->take($move),
                    "{$move->value} from {$status->value} as it was worked out before",
                );
                self::assertSame(
                    $becomes === $status && ! in_array($status, $move->beginsIn(), true),
                    ! $change->take($move),
                    "{$move->value} from {$status->value}",
                );
                self::assertSame($becomes, $change->refresh()->status);
            }
        }
    }

    /** Read by two, taken by one. */
    public function test_of_two_who_take_a_step_one_does(): void
    {
        $one = $this->change();
        $other = Change::query()->findOrFail($one->id);

        self::assertTrue($one->take(Move::Drop));
        self::assertFalse($other->take(Move::Refuse));
        self::assertSame(ChangeStatus::Dropped, $other->refresh()->status);
    }

    public function test_the_interface_is_told_which_steps_are_open_to_whom(): void
    {
        $change = $this->change();
        $reviewer = $this->member(Role::Reviewer, $this->client);
        $owner = $this->member(Role::Owner, $this->client);

        self::assertSame(['drop', 'redraft', 'start'], $this->may($change));
        self::assertSame([], $this->may($change, $this->member(Role::Viewer, $this->client)));
        self::assertSame([], $this->may($change, $reviewer), 'nobody has to say yes');

        $this->client->update(['needs_approval' => true]);
        self::assertSame(['drop', 'redraft'], $this->may($change));
        self::assertSame(['approve', 'refuse'], $this->may($change, $reviewer));
        self::assertSame(['approve', 'refuse', 'drop', 'redraft'], $this->may($change, $owner));

        $change->update(['approved_by' => $reviewer->id]);
        self::assertSame(['drop', 'redraft', 'start'], $this->may($change));
        self::assertSame(['refuse'], $this->may($change, $reviewer));

        $change->update(['plan_revision' => 0]);
        self::assertSame(['drop', 'redraft'], $this->may($change), 'the plan has changed since');
    }

    /** What is told is what is done: each step that is open is taken, each that is not is refused. */
    public function test_each_open_step_is_taken_and_each_other_is_refused(): void
    {
        $change = $this->change();
        $change
            ->writes()
            ->reorder()
            ->limit(3)
            ->update(['state' => WriteState::Written]);
        $ways = [
            'drop' => 'drop',
            'redraft' => 'again',
            'start' => 'application',
            'hold' => 'pause',
            'end' => 'stop',
            'take-back' => 'reversal',
        ];
        Queue::fake(); // nobody carries out what is begun
        foreach (ChangeStatus::cases() as $status) {
            foreach (['trial', 'rest'] as $stage) {
                foreach ($ways as $step => $way) {
                    $change->forceFill(['status' => $status, 'stage' => $stage])->save();
                    $isOpen = in_array($step, $this->may($change), true);
                    $answer = $this->api('POST', "/changes/{$change->id}/{$way}");

                    self::assertSame(
                        $isOpen,
                        $answer->isSuccessful(),
                        "{$step} from {$status->value}, {$stage}: {$answer->getContent()}",
                    );
                    $change->refresh();
                }
            }
        }
    }

    public function test_what_was_worked_out_anew_is_not_started_by_who_saw_it_before(): void
    {
        $change = $this->change();
        $this->api('POST', "/changes/{$change->id}/again")->assertStatus(202);

        $this->api('POST', "/changes/{$change->id}/application", ['draft' => 1])
            ->assertStatus(409)
            ->assertJsonPath(
                'message',
                'This change has been worked out again since you opened it. Look at it anew.',
            );
        $this->api('POST', "/changes/{$change->id}/application", ['draft' => 2])->assertStatus(202);
    }
}
