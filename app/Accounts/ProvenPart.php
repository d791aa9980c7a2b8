<?php

namespace App\Accounts;

use Vestigon\Core\Proof\Gathered;

/** What came of the proof of some of an account's ads; their verdicts are kept already. It can be serialized. */
final readonly class ProvenPart
{
    /**
     * @param Counts $counts ads right below each element, by state
     * @param array<string, array{changes: list<int>, breaks: bool, ads: int, sample: int}>|null $turned see Effects;
     *     null: nothing had changed outside
     */
    public function __construct(public Gathered $gathered, public Counts $counts, public ?array $turned) {}
}
