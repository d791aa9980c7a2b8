<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Plan\Choice;

/** One way of saying a plan: in which slot, and how values get there that the platform has no token for. */
final readonly class Way
{
    /**
     * @param bool $writesOut such values are written out, even where custom parameters could hold them
     * @param bool $joinsOn a template goes on behind the landing URL with `&`: for pages that have a query already, on
     *     platforms that mend no second `?`
     * @param bool $tidies what of theirs spoils the page is moved to where it arrives unspoilt
     * @param bool $spares a shared text leaves out a key that any of its ads keeps as it is
     * @param bool $splits what can be written out stands in the landing URLs; only what a click gives in the wider slot
     * @param bool $leaves nothing is said: what counts today is to count
     */
    public function __construct(
        public Carrier $carrier,
        public bool $writesOut = false,
        public bool $joinsOn = false,
        public bool $tidies = false,
        public bool $spares = false,
        public bool $splits = false,
        public bool $leaves = false,
    ) {}

    /** The text that counts today, whatever is written above. */
    public static function asItIs(): self
    {
        return new self(Carrier::Template, leaves: true);
    }

    /** Such values are written out. */
    public function writtenOut(): self
    {
        return new self($this->carrier, true, $this->joinsOn, $this->tidies, $this->spares, $this->splits);
    }

    public function sparing(): self
    {
        return new self($this->carrier, $this->writesOut, $this->joinsOn, $this->tidies, true, $this->splits);
    }

    public function tidied(): self
    {
        return new self($this->carrier, $this->writesOut, $this->joinsOn, true, $this->spares, $this->splits);
    }

    public function split(): self
    {
        return new self($this->carrier, $this->writesOut, $this->joinsOn, $this->tidies, $this->spares, true);
    }

    /** Is a field given by custom parameters on the nodes that own it? */
    public function usesCustom(string $field, Choice $choice, Dialect $dialect): bool
    {
        $owner = $choice->means[$field]->owner ?? null;

        return ! $this->writesOut
            && $owner instanceof Role
            && in_array($dialect->levelOf($owner)?->id, $dialect->customParameters->levels ?? [], true);
    }

    public function isLandingUrls(): bool
    {
        return $this->carrier === Carrier::Landing;
    }
}
