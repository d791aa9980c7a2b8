<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** What a column might mean, and why. */
final readonly class SuggestedColumn
{
    /**
     * @param Meaning $means nothing, where that is open
     * @param string $why a sentence
     * @param array<string, string>|null $values what its cells say, where they are words of the export's own
     * @param list<string> $asked cells that no value could be suggested for
     * @param CustomForm $form of custom parameters in one cell
     */
    public function __construct(
        public string $heading,
        public Meaning $means,
        public Certainty $certainty,
        public string $why,
        public ?array $values = null,
        public array $asked = [],
        public CustomForm $form = new CustomForm(),
    ) {}

    public function as(Meaning $means): self
    {
        return new self(
            $this->heading,
            $means,
            $this->certainty,
            $this->why,
            $this->values,
            $this->asked,
            $this->form,
        );
    }

    public function column(): Column
    {
        return new Column($this->heading, $this->means, $this->values, $this->form);
    }
}
