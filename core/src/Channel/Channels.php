<?php

declare(strict_types=1);

namespace Vestigon\Core\Channel;

/** Ordered rules: the first that takes a click names its channel. */
final readonly class Channels
{
    /**
     * @param array<string, string> $keys short name → parameter key, `source` → `utm_source`
     * @param list<Rule> $rules
     * @param string $otherwise the channel of what no rule takes
     */
    public function __construct(public array $keys, public array $rules, public string $otherwise) {}

    /** @param array<string, string> $values parameter key → value; what is not given is empty */
    public function of(array $values): Counted
    {
        $value = $this->value($values);
        foreach ($this->rules as $i => $rule) {
            if ($rule->takes($value)) {
                return new Counted(
                    $rule->channel,
                    $i,
                    $rule->all === []
                        ? 'it takes all that is left'
                        : implode(' and ', array_map(static fn (Test $t): string => $t->words(), $rule->all)),
                );
            }
        }

        return new Counted(
            $this->otherwise,
            null,
            'no rule takes '
                .implode(
                    ', ',
                    array_map(static fn (string $k): string => "{$k} “{$value($k)}”", array_keys($this->keys)),
                ),
        );
    }

    /**
     * The rules that are asked, one after the other, up to the one that takes the click.
     *
     * @param array<string, string> $values parameter key → value
     * @return list<RuleLook>
     */
    public function looks(array $values): array
    {
        $value = $this->value($values);
        $looks = [];
        foreach ($this->rules as $i => $rule) {
            $looks[] = $look = new RuleLook(
                $i,
                $rule->channel,
                array_map(
                    static fn (Test $t): array => ['says' => $t->words(), 'holds' => $t->isMet($value($t->key))],
                    $rule->all,
                ),
            );
            if ($look->takes()) {
                break;
            }
        }

        return $looks;
    }

    /**
     * @param array<string, string> $values parameter key → value
     * @return \Closure(string): string gives what a test asks for; what is not there is empty
     */
    private function value(array $values): \Closure
    {
        return fn (string $key): string => $values[$this->keys[$key] ?? $key] ?? '';
    }

    /** @return list<string> every channel that a click can be counted in */
    public function channels(): array
    {
        return array_values(
            array_unique([
                ...array_map(static fn (Rule $r): string => $r->channel, $this->rules),
                $this->otherwise,
            ]),
        );
    }
}
