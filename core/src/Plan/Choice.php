<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Dialect\Dialect;

/** The parts that a key is made of on a platform, with the means for each field. */
final readonly class Choice
{
    /**
     * @param list<Part> $parts
     * @param array<string, Means> $means by field
     * @param array<string, array<string, string>> $spellings field → the platform's own spelling of its values
     */
    private function __construct(
        public array $parts,
        public Shape $shape,
        public array $means,
        private array $spellings,
    ) {}

    /**
     * @param list<Part> $parts
     * @param \Closure(string, Shape): bool $shaped
     * @return self|string the choice, or the field that can't be given
     */
    public static function of(
        array $parts,
        Shape $shape,
        Dialect $dialect,
        ?string $campaignType,
        \Closure $shaped,
    ): self|string {
        $means = [];
        $spellings = [];
        foreach ($parts as $part) {
            if ($part->field === null) {
                continue;
            }
            $found = Means::for($part->field, $shape, $shaped($part->field, $shape), $dialect, $campaignType);
            if ($found === null) {
                return $part->field;
            }
            $means[$part->field] = $found;
            $token = $dialect->tokenFor($part->field, $campaignType);
            if ($token?->values !== null) {
                $spellings[$part->field] = $token->values;
            }
        }

        return new self($parts, $shape, $means, $spellings);
    }

    /** @param array<string, string> $fields */
    public function value(array $fields): string
    {
        $value = '';
        foreach ($this->parts as $part) {
            $value .= $part->field === null ? $part->text : $this->fieldValue($part->field, $fields);
        }

        return $value;
    }

    /**
     * What one field of the click gives, in the platform's spelling and in shape.
     *
     * @param array<string, string> $fields
     */
    public function fieldValue(string $field, array $fields): string
    {
        return $this->shape->of($this->spelled($field, $fields[$field] ?? ''));
    }

    /** @return list<string> */
    public function fields(): array
    {
        return array_keys($this->means);
    }

    private function spelled(string $field, string $value): string
    {
        return isset($this->spellings[$field]) ? $this->spellings[$field][$value] ?? '' : $value;
    }
}
