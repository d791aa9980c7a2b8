<?php

namespace App\Models;

/** How far one write of a change is. */
enum WriteState: string
{
    case Waiting = 'waiting';
    /** On its way; whether the platform has it is not known. */
    case Sent = 'sent';
    /** The platform says that it has it. */
    case Written = 'written';
    /** Read back, and the same. */
    case Verified = 'verified';
    /** Read back, and not what was written. */
    case Differs = 'differs';
    /** The platform did not take it. */
    case Failed = 'failed';
    /** Left out: a person has ended the change. */
    case Left = 'left';

    /** @return list<self> it stands on the platform */
    public static function there(): array
    {
        return [self::Written, self::Verified];
    }

    /** @return list<self> it did not become what it should */
    public static function amiss(): array
    {
        return [self::Failed, self::Differs];
    }
}
