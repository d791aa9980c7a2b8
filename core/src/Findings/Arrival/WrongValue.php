<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Arrival;

use Vestigon\Core\Findings\Click;
use Vestigon\Core\Findings\ClickRule;
use Vestigon\Core\Findings\Flaw;
use Vestigon\Core\Findings\Severity;

/** wrong-value: a key of the plan arrives with another value. */
final readonly class WrongValue implements ClickRule
{
    public function __construct(private EncodingDepth $depth = new EncodingDepth()) {}

    public function breaks(): bool
    {
        return true;
    }

    public function check(Click $click): iterable
    {
        foreach ($click->expected as $key => $expected) {
            $came = $click->arrived[$key] ?? [];
            if (count($came) === 1 && $came[0] !== $expected && ! $this->depth->explains($came[0], $expected)) {
                yield new Flaw(
                    'wrong-value',
                    Severity::Error,
                    true,
                    "{$key} arrives as "
                        .Click::quoted($came[0])
                        .'; the plan says '
                        .Click::quoted($expected)
                        .'.',
                    (string) $key,
                    $expected,
                    $came,
                );
            }
        }
    }
}
