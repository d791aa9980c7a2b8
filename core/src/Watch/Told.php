<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** Who is told what comes of events, as soon as it is known. */
interface Told
{
    /** A session that is over; they are told in the order in which they began. */
    public function session(Session $session): void;

    /** Its sessions may be open still. */
    public function conversion(Conversion $conversion): void;

    /** A conversion whose order has been counted before. */
    public function repeated(Event $event): void;
}
