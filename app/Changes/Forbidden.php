<?php

namespace App\Changes;

/** Why a step is not taken. */
final readonly class Forbidden
{
    /**
     * @param int $status of the answer: 403, it is not this person's to take; 409, the change is not where it could be
     *     taken; 422, something is to be done first
     */
    public function __construct(public int $status, public string $why) {}
}
