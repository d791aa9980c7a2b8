<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** How all custom parameters of an element stand in one cell: `{my.season}=winter; {my.label}=islands`. */
final readonly class CustomForm
{
    /**
     * @param non-empty-string $pair what stands between two of them
     * @param non-empty-string $is what stands between name and value
     */
    public function __construct(
        public string $pair = ';',
        public string $is = '=',
        public string $open = '',
        public string $close = '',
    ) {}

    /** @throws UnusableInput */
    public static function read(Cursor $c): self
    {
        return new self(
            $c->at('pair')->someText(),
            $c->at('is')->someText(),
            $c->has('open') ? $c->at('open')->string() : '',
            $c->has('close') ? $c->at('close')->string() : '',
        );
    }

    /** @return array{pair: string, is: string, open: string, close: string} */
    public function toArray(): array
    {
        return ['pair' => $this->pair, 'is' => $this->is, 'open' => $this->open, 'close' => $this->close];
    }

    /** @return array<string, string>|null by name; null: that is no list of custom parameters */
    public function parameters(string $cell): ?array
    {
        $parameters = [];
        foreach (explode($this->pair, $cell) as $pair) {
            if (trim($pair) === '') {
                continue;
            }
            $said = array_map(trim(...), explode($this->is, $pair, 2));
            $name = $this->bare($said[0]);
            if ($name === null || ! isset($said[1])) {
                return null;
            }
            $parameters[$name] = $said[1];
        }

        return $parameters;
    }

    /** @param array<string, string> $parameters */
    public function cell(array $parameters): string
    {
        $pairs = [];
        foreach ($parameters as $name => $value) {
            $pairs[] = $this->open.$name.$this->close.$this->is.$value;
        }

        return implode(rtrim($this->pair) === $this->pair ? "{$this->pair} " : $this->pair, $pairs);
    }

    /** Can these be told apart again once they stand in one cell? */
    public function holds(string $name, string $value): bool
    {
        return $this->parameters($this->cell([$name => $value])) === [$name => $value];
    }

    /** The name between its marks; null: there is none. */
    private function bare(string $name): ?string
    {
        $isMarked =
            str_starts_with($name, $this->open)
            && str_ends_with($name, $this->close)
            && strlen($name) > strlen($this->open.$this->close);

        return $isMarked
            ? substr($name, strlen($this->open), strlen($name) - strlen($this->open.$this->close))
            : null;
    }
}
