<?php

namespace App\Changes;

use App\Models\Change;
use App\Models\ChangeStatus as Status;

/**
 * Every step that a change can take: from which states, to which, and by whom. Nothing else moves one.
 *
 * A step is taken by compare and set in the database, from one of its states and under the working out that it was
 * decided on: see Change::take().
 */
enum Move: string
{
    // persons' steps
    case Approve = 'approve';
    case Refuse = 'refuse';
    case Drop = 'drop';
    case Redraft = 'redraft';
    case Start = 'start';
    case Hold = 'hold';
    case End = 'end';
    case TakeBack = 'take-back';
    case Answer = 'answer';

    // workers' steps
    case Offer = 'offer';
    case Fail = 'fail';
    case HandOut = 'hand-out';
    case EndTrial = 'end-trial';
    case Complete = 'complete';
    case CompleteInPart = 'complete-in-part';
    case Stop = 'stop';
    case GiveWay = 'give-way';
    case PutBack = 'put-back';

    /** @return list<Status> */
    public function beginsIn(): array
    {
        return match ($this) {
            self::Approve, self::Refuse => [Status::Ready],
            self::Drop => [Status::Drafting, Status::Ready],
            self::Redraft => [Status::Ready, Status::Dropped, Status::Failed],
            self::Start => [Status::Ready, Status::Tried, Status::Paused, Status::Stopped, Status::Partly],
            self::Hold, self::HandOut, self::EndTrial => Status::running(),
            self::End => [Status::Applying, Status::Paused],
            self::TakeBack => [Status::Tried, Status::Paused, Status::Stopped, Status::Partly, Status::Done],
            self::Answer => [Status::HandedOut],
            self::Offer, self::Fail => [Status::Drafting],
            self::Complete, self::CompleteInPart, self::Stop => [...Status::running(), Status::Paused],
            self::GiveWay => Status::underWay(),
            self::PutBack => [Status::Stopped, Status::Partly, Status::Done],
        };
    }

    public function leadsTo(Change $change): Status
    {
        return match ($this) {
            self::Approve, self::Offer => Status::Ready,
            self::Refuse, self::Drop => Status::Dropped,
            self::Redraft => Status::Drafting,
            self::Start, self::Answer => $change->stage === 'trial' ? Status::Trying : Status::Applying,
            self::Hold => Status::Paused,
            self::End => Status::Applying,
            self::TakeBack => $change->status, // what it becomes, the change that puts everything back says
            self::Fail => Status::Failed,
            self::HandOut => Status::HandedOut,
            self::EndTrial => Status::Tried,
            self::Complete => Status::Done,
            self::CompleteInPart => Status::Partly,
            self::Stop, self::GiveWay => Status::Stopped,
            self::PutBack => Status::TakenBack,
        };
    }

    /** @return 'edit'|'review'|null what a person must be allowed at the client; null: a worker takes it */
    public function ability(): ?string
    {
        return match ($this) {
            self::Approve, self::Refuse => 'review',
            self::Drop, self::Redraft, self::Start, self::Hold, self::End, self::TakeBack, self::Answer => 'edit',
            default => null,
        };
    }

    /** What is said where a change is in no state that a person's step begins in. */
    public function refusal(Change $change): string
    {
        return match ($this) {
            self::Approve,
            self::Refuse => 'Only a change that has been worked out and not begun can be approved or sent back.',
            self::Drop => 'Only a change of which nothing has been written can be dropped. What has been written '
                .'can be '
                .'taken back.',
            self::Redraft => 'Only a change of which nothing has been written can be worked out again.',
            self::Start => match (true) {
                $change->status->isRunning() => 'This change is being applied already. It is not started twice.',
                $change->status === Status::Done => 'This change has been applied. Nothing is left to do.',
                default => "A change that is {$change->status->value} can't be applied.",
            },
            self::Hold => 'It is not being applied now, so there is nothing to hold.',
            self::End => 'Only a change whose rest is being applied can be ended. After the trial, take it back '
                .'instead.',
            self::TakeBack => 'Only a change of which something has been written, and that is not being written now, '
                .'can be '
                .'taken back.',
            self::Answer => 'This change is not waiting for a result sheet.',
            default => throw new \LogicException('a worker is told nothing'),
        };
    }
}
