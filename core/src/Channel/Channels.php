<?php

declare(strict_types=1);

namespace Vestigon\Core\Channel;

/** Ordered rules: the first that takes a click names its channel. */
final readonly class Channels
{
    /** @var array<int, Counted> by rule */
    private array $counted;

    /** @var array<string, array<string, list<int>>> key → word → rules that hold only where the key says the word */
    private array $byWord;

    /** @var list<int> rules of which no word says whether they may hold */
    private array $others;

    /**
     * @param array<string, string> $keys short name → parameter key, `source` → `utm_source`
     * @param list<Rule> $rules
     * @param string $otherwise the channel of what no rule takes
     */
    public function __construct(public array $keys, public array $rules, public string $otherwise)
    {
        $this->counted = array_map(
            static fn (Rule $r, int $i): Counted => new Counted($r->channel, $i, $r->why()),
            $rules,
            array_keys($rules),
        );
        $byWord = $others = [];
        foreach ($rules as $i => $rule) {
            $test = array_values(array_filter($rule->all, static fn (Test $t): bool => $t->isOfWords()))[0] ?? null;
            if ($test === null) {
                $others[] = $i;

                continue;
            }
            foreach (array_unique($test->in) as $word) {
                $byWord[$test->key][$word][] = $i;
            }
        }
        [$this->byWord, $this->others] = [$byWord, $others];
    }

    /** @param array<string, string> $values parameter key → value; what is not given is empty */
    public function of(array $values): Counted
    {
        $lower = [];
        $mayHold = $this->others;
        foreach ($this->byWord as $key => $words) {
            $lower[$key] = mb_strtolower($values[$this->keys[$key] ?? $key] ?? '');
            foreach ($words[$lower[$key]] ?? [] as $i) {
                $mayHold[] = $i;
            }
        }
        sort($mayHold);
        foreach ($mayHold as $i) {
            foreach ($this->rules[$i]->all as $test) {
                $key = $test->key;
                $value = $values[$this->keys[$key] ?? $key] ?? '';
                if (! $test->isMet($value, $lower[$key] ??= mb_strtolower($value))) {
                    continue 2;
                }
            }

            return $this->counted[$i];
        }

        return new Counted($this->otherwise, null, $this->noRule($values));
    }

    /** @param array<string, string> $values */
    private function noRule(array $values): string
    {
        $said = [];
        foreach ($this->keys as $key => $parameter) {
            $said[] = "{$key} “".($values[$parameter] ?? '').'”';
        }

        return 'no rule takes '.implode(', ', $said);
    }

    /**
     * The rules that are asked, one after the other, up to the one that takes the click.
     *
     * @param array<string, string> $values parameter key → value
     * @return list<RuleLook>
     */
    public function looks(array $values): array
    {
        $value = fn (string $key): string => $values[$this->keys[$key] ?? $key] ?? '';
        $looks = [];
        foreach ($this->rules as $i => $rule) {
            $looks[] = $look = new RuleLook(
                $i,
                $rule->channel,
                array_map(
                    static fn (Test $t): array => [
                        'says' => $t->words(),
                        'holds' => $t->isMet($value($t->key), mb_strtolower($value($t->key))),
                    ],
                    $rule->all,
                ),
            );
            if ($look->takes()) {
                break;
            }
        }

        return $looks;
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
