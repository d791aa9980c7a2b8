<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

/** A click that breaks the agreement. */
final readonly class Counterexample
{
    /**
     * @param array<string, string> $context
     * @param string $key the parameter; empty where the whole URL is at fault
     * @param list<string> $arrived what came in place of the expected value
     */
    public function __construct(public Fault $fault, public string $key, public array $context, public ?string $url, public ?string $expected, public array $arrived, public string $reason) {}
}
