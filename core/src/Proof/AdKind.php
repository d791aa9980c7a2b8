<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

/** Ads with the same texts: their proof, and their findings. */
final class AdKind
{
    /** @var array<string, int> how many ads, by the names that some findings are about; all under '' where none is */
    public array $counts = [];

    /** @var array<string, list<Tally>> the findings of each of those */
    public array $tallies = [];

    /** @var list<array{string, string}>|null the fixed values of their own texts, see Spellings */
    public ?array $spelled = null;

    /** @param bool $names is any finding about the campaign's name? */
    public function __construct(public readonly ?KindProof $alike, public readonly bool $names) {}
}
