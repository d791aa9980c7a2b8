<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Findings\Flaw;

/** A click that breaks the agreement. */
final readonly class Counterexample
{
    /**
     * @param string $code of the finding: missing-key, wrong-value …
     * @param string $key the parameter; empty where the whole URL is at fault
     * @param array<string, string> $context
     * @param list<string> $arrived what came in place of the expected value
     */
    public function __construct(
        public string $code,
        public string $key,
        public array $context,
        public ?string $url,
        public ?string $expected,
        public array $arrived,
        public string $reason,
    ) {}

    /** @param array<string, string> $context */
    public static function of(Flaw $flaw, array $context, ?string $url): self
    {
        return new self(
            $flaw->code,
            $flaw->key ?? '',
            $context,
            $url,
            $flaw->expected,
            $flaw->arrived,
            $flaw->reason,
        );
    }

    /** @return array<string, mixed> as in `vestigon.findings/1` */
    public function toArray(): array
    {
        return [
            'code' => $this->code,
            'key' => $this->key === '' ? null : $this->key,
            'context' => (object) $this->context,
            'url' => $this->url,
            'expected' => $this->expected,
            'arrived' => $this->arrived,
            'reason' => $this->reason,
        ];
    }
}
