<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Proof\State;
use Vestigon\Core\Proof\Verdict;

/** What to write so that every click tells the truth, and what can't be had. */
final readonly class Compiled
{
    /**
     * @param list<Write> $writes in the order to apply
     * @param list<Unmet> $unmet
     * @param list<Unmet> $kept plan keys that stay as they are, with the text that has them
     * @param list<Write> $overridden texts on narrower levels that are rewritten or cleared; each is one of the writes
     * @param array<string, Verdict> $was by ad, before the writes
     * @param array<string, Verdict> $will by ad, after them
     * @param Way|null $way by which all ads are served that are not served apart; null: nothing had to be chosen
     */
    public function __construct(
        public array $writes,
        public array $unmet,
        public array $kept,
        public array $overridden,
        public array $was = [],
        public array $will = [],
        public ?Way $way = null,
    ) {}

    /** Does every ad keep the plan after the writes, but for what the platform can't give? */
    public function isTrue(): bool
    {
        foreach ($this->will as $verdict) {
            if ($verdict->state !== State::Proven) {
                return false;
            }
        }

        return true;
    }

    /** @return array{int, int} what would be lost, then what can't be had: the smaller, the better */
    public function lack(): array
    {
        $harm = count(array_filter($this->unmet, static fn (Unmet $u): bool => $u->isHarm()));

        return [$harm, count($this->unmet) - $harm];
    }

    /**
     * @return array{int, int, int} the smaller, the better: what would be lost, what can't be had, how much is written
     */
    public function rank(): array
    {
        return [...$this->lack(), count($this->writes)];
    }

    /** @param array<string, Verdict> $was by ad, before the writes */
    public function from(array $was): self
    {
        return $this->but(['was' => $was]);
    }

    /**
     * @param list<Write> $first switches, to be made before all else
     * @param array<string, Verdict> $was by ad, before those
     */
    public function after(array $first, array $was): self
    {
        return $this->but(['writes' => [...$first, ...$this->writes], 'was' => $was]);
    }

    /** @param list<Unmet> $kept */
    public function keeping(array $kept): self
    {
        return $this->but(['kept' => $kept]);
    }

    /** @param list<Unmet> $unmet the same, told otherwise */
    public function lacking(array $unmet): self
    {
        return $this->but(['unmet' => $unmet]);
    }

    /** @param list<Write> $writes the same in another order */
    public function inOrder(array $writes): self
    {
        return $this->but(['writes' => $writes]);
    }

    public function by(?Way $way): self
    {
        return $this->but(['way' => $way]);
    }

    /**
     * @param array{
     *     writes?: list<Write>, unmet?: list<Unmet>, kept?: list<Unmet>, was?: array<string, Verdict>, way?: Way|null,
     * } $otherwise
     */
    private function but(array $otherwise): self
    {
        return new self(
            $otherwise['writes'] ?? $this->writes,
            $otherwise['unmet'] ?? $this->unmet,
            $otherwise['kept'] ?? $this->kept,
            $this->overridden,
            $otherwise['was'] ?? $this->was,
            $this->will,
            $otherwise['way'] ?? $this->way,
        );
    }
}
