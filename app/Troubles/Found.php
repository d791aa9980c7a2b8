<?php

namespace App\Troubles;

/** A trouble as it is today. */
final readonly class Found
{
    /**
     * @param string $cause the same for the same cause, on whatever day it is met
     * @param string $what the same as it is read
     */
    public function __construct(
        public TroubleKind $kind,
        public int $account,
        public string $cause,
        public string $what,
        public ?int $node = null,
        public int $ads = 0,
        public int $clicks = 0,
        public int $cost = 0,
    ) {}

    public function hash(): string
    {
        return md5("{$this->kind->value}\0{$this->account}\0{$this->cause}");
    }
}
