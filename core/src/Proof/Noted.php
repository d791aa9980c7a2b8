<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\SlotKind;

/** What has been counted of an account's findings, of some of its ads. */
final readonly class Noted
{
    /**
     * @param array<string, Tally> $tallies by finding
     * @param array<string, array<string, array{int, Node, SlotKind, int, int, string}>> $spellings see Spellings
     * @param array<string, true> $used custom parameters, see Unused
     * @param array<string, array<string, array{Node, int}>> $words see Words
     */
    public function __construct(
        public array $tallies,
        public array $spellings,
        public array $used,
        public array $words,
    ) {}
}
