<?php

namespace App\Troubles;

/** A trouble as it is today. */
final readonly class Found
{
    /**
     * @param int|null $account null: it is of a list, or of links that people place themselves
     * @param string $cause the same for the same cause, on whatever day it is met
     * @param string $what the same as it is read
     * @param array{code: string, name: string, key: string, values: list<string>}|null $about what arrives wrong
     */
    public function __construct(
        public TroubleKind $kind,
        public ?int $account,
        public string $cause,
        public string $what,
        public ?int $node = null,
        public int $ads = 0,
        public int $clicks = 0,
        public int $cost = 0,
        public ?int $feed = null,
        public ?array $about = null,
    ) {}

    public function hash(): string
    {
        $of = $this->feed ?? ($this->account ?? '');

        return md5("{$this->kind->value}\0{$of}\0{$this->cause}");
    }
}
