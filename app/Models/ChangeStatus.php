<?php

namespace App\Models;

/** How far a change is. */
enum ChangeStatus: string
{
    /** Its writes are being worked out. */
    case Drafting = 'drafting';
    /** Worked out, nothing written. */
    case Ready = 'ready';
    /** Its trial is being written. */
    case Trying = 'trying';
    /** The trial has been written and clicked; the rest waits for a person. */
    case Tried = 'tried';
    /** The rest is being written. */
    case Applying = 'applying';
    case Paused = 'paused';
    /** Its texts have gone out in a sheet; the platform's answer is awaited. */
    case HandedOut = 'handed-out';
    /** Trouble ended it before its time; it can go on from there. */
    case Stopped = 'stopped';
    /** All is written that can be, and some was not taken. */
    case Partly = 'partly';
    case Done = 'done';
    /** Another change has put everything back. */
    case TakenBack = 'taken-back';
    /** Nobody wants it any more, and nothing of it was written. */
    case Dropped = 'dropped';
    /** It could not be worked out. */
    case Failed = 'failed';

    /** Is a worker at it, or should one be? */
    public function isRunning(): bool
    {
        return in_array($this, self::running(), true);
    }

    /** @return list<self> a worker is at it, or should be */
    public static function running(): array
    {
        return [self::Trying, self::Applying];
    }

    /** @return list<self> begun on the platform and not at its end */
    public static function underWay(): array
    {
        return [self::Trying, self::Tried, self::Applying, self::Paused, self::HandedOut, self::Stopped];
    }

    /** @return list<self> nothing more will become of it */
    public static function over(): array
    {
        return [self::Partly, self::Done, self::TakenBack, self::Dropped, self::Failed];
    }

    /** @return list<self> shown as running work */
    public static function inSight(): array
    {
        return [self::Drafting, self::Trying, self::Applying, self::Paused];
    }
}
