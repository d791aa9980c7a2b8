<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Arrival;

use Vestigon\Core\Findings\Click;
use Vestigon\Core\Findings\ClickRule;
use Vestigon\Core\Findings\Flaw;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Text\ForeignTokens;
use Vestigon\Core\Template\Element\Literal;
use Vestigon\Core\Template\TemplateReader;

/** raw-token-arrived: a placeholder arrives as it was typed, since nobody filled it. */
final readonly class RawTokenArrived implements ClickRule
{
    public function __construct(private ForeignTokens $foreign) {}

    public function breaks(): bool
    {
        return false;
    }

    public function check(Click $click): iterable
    {
        $reader = new TemplateReader($click->dialect);
        foreach ($click->arrived as $key => $values) {
            foreach ($values as $value) {
                $raw = $this->raw($value, $click, $reader);
                if ($raw !== null && ! $click->wasGiven($raw)) {
                    yield new Flaw(
                        'raw-token-arrived',
                        Severity::Error,
                        false,
                        "{$key} arrives with {$raw} in it: nobody filled the placeholder.",
                        (string) $key,
                        null,
                        [$value],
                    );
                    break;
                }
            }
        }
    }

    private function raw(string $value, Click $click, TemplateReader $reader): ?string
    {
        foreach ($reader->read($value)->parts as $part) {
            if (! ($part instanceof Literal) && preg_match('~^\W*[\w.:\-]+\W*$~', $part->source) === 1) {
                return $part->source;
            }
        }
        foreach ($this->foreign->in($value, $click->dialect) as [$typed]) {
            return $typed;
        }

        return null;
    }
}
