<?php

declare(strict_types=1);

namespace Vestigon\Core\Learn;

use Vestigon\Core\Dialect\TokenKind;

/** A placeholder as a platform's help tells of it, and what it seems to give. */
final readonly class Placeholder
{
    /**
     * @param string|null $field null: of a landing URL there is none, of others it is not known
     * @param int|null $encode landing URLs: how often they are encoded; null: that is not said
     * @param string $says what the help says of it
     * @param bool $isSure else a person is asked
     * @param list<string> $is of a text of its own: the values of the field for which that counts
     */
    public function __construct(
        public string $name,
        public TokenKind $kind,
        public ?string $field,
        public ?int $encode,
        public string $says,
        public bool $isSure,
        public string $why,
        public array $is = [],
    ) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'name' => $this->name,
            'kind' => $this->kind->value,
            'field' => $this->field,
            'encode' => $this->encode,
            'says' => $this->says,
            'isSure' => $this->isSure,
            'why' => $this->why,
            'is' => $this->is,
        ];
    }
}
