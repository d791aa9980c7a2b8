<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Arrival;

use Vestigon\Core\Findings\Click;
use Vestigon\Core\Findings\ClickRule;
use Vestigon\Core\Findings\Flaw;
use Vestigon\Core\Findings\Severity;

/** encoding-depth: a value arrives with percent signs left in it, since it was encoded more often than it is read. */
final readonly class EncodingDepth implements ClickRule
{
    private const DEEPEST = 4;

    public function breaks(): bool
    {
        return true;
    }

    public function check(Click $click): iterable
    {
        foreach ($click->arrived as $key => $values) {
            $expected = $click->expected[$key] ?? null;
            foreach (count($values) === 1 ? $values : [] as $value) {
                if (
                    $expected !== null ? $this->explains($value, $expected) : $this->looksEncoded($click, $value)
                ) {
                    yield new Flaw(
                        'encoding-depth',
                        Severity::Error,
                        $expected !== null,
                        "{$key} arrives encoded: "
                            .Click::quoted($value)
                            .($expected === null ? '.' : ' in place of '.Click::quoted($expected).'.'),
                        (string) $key,
                        $expected,
                        [$value],
                    );
                }
            }
        }
    }

    /** Is the value the expected one, but for encoding? */
    public function explains(string $value, string $expected): bool
    {
        for ($i = 0; $i < self::DEEPEST && $value !== $expected; $i++) {
            $decoded = urldecode($value);
            if ($decoded === $value) {
                return false;
            }
            $value = $decoded;
            if ($value === $expected) {
                return true;
            }
        }

        return false;
    }

    private function looksEncoded(Click $click, string $value): bool
    {
        return preg_match('/%[0-9A-Fa-f]{2}/', $value, $found) === 1
            && ! $click->wasGiven($found[0])
            && preg_match('~^https?:~i', $value) !== 1;
    }
}
