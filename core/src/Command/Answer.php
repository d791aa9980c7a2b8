<?php

declare(strict_types=1);

namespace Vestigon\Core\Command;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Severity;

/** What a command says to one request, and whether anything is badly wrong. */
final readonly class Answer
{
    /** @param array<string, mixed> $document */
    public function __construct(public array $document, public bool $isBad) {}

    /**
     * @param array<string, mixed> $document
     * @param list<Finding> $findings
     */
    public static function of(array $document, array $findings): self
    {
        $bad = array_filter($findings, static fn (Finding $f): bool => $f->severity === Severity::Error) !== [];

        return new self(
            [...$document, 'findings' => array_map(static fn (Finding $f): array => $f->toArray(), $findings)],
            $bad,
        );
    }
}
