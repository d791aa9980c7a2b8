<?php

declare(strict_types=1);

namespace Vestigon\Core\Naming;

/** How names are made: parts in order, between them a separator. */
final readonly class Pattern
{
    /** What people write between parts. */
    private const SEPARATORS = [' | ', '|', ' - ', ' – ', '_', '-', ' / ', '/', ' · ', ';', ',', ' '];

    /**
     * @param list<NamePart> $parts
     * @param non-empty-string $separator
     */
    public function __construct(
        public array $parts,
        public string $separator,
        public NamedFor $for = new NamedFor(),
        public string $title = '',
    ) {}

    /**
     * Puts a name together.
     *
     * @param array<string, string> $values part → what it says
     * @return string|list<Trouble> the name, or what is wrong with the values
     */
    public function compose(array $values): string|array
    {
        $trouble = [];
        $texts = [];
        foreach ($this->parts as $part) {
            $value = ($values[$part->name] ?? '') === '' ? $part->default ?? '' : $values[$part->name];
            if ($value === '' && $part->optional) {
                continue;
            }
            $why = $part->trouble($value, $this->separator);
            if ($why !== null) {
                $trouble[] = new Trouble($part->name, null, 0, $why);
            }
            $texts[] = $value;
        }

        return $trouble === [] ? implode($this->separator, $texts) : $trouble;
    }

    /**
     * The name that is meant, where one can be told: capitals, white space, another separator or a near word mended.
     *
     * @return string|null null: it is right already, or nothing can be told
     */
    public function proposed(string $name): ?string
    {
        if ($this->read($name)->trouble === []) {
            return null;
        }
        foreach (array_unique([$this->separator, ...self::SEPARATORS]) as $separator) {
            $texts = array_map(trim(...), explode($separator, trim($name)));
            $mended = $this->fitted($this->parts, $texts);
            $proposed = $mended === null ? null : implode($this->separator, $mended);
            if ($proposed !== null && $this->read($proposed)->trouble === []) {
                return $proposed;
            }
        }

        return null;
    }

    /**
     * @param list<NamePart> $parts
     * @param list<string> $texts
     * @return list<string>|null the texts as the parts want them, one for each part that is not left out; null: they
     *     do not fit
     */
    private function fitted(array $parts, array $texts): ?array
    {
        $part = array_shift($parts);
        if ($part === null) {
            return $texts === [] ? [] : null;
        }
        $mended = $texts === [] ? null : $part->mended($texts[0], $this->separator);
        $rest = $mended === null ? null : $this->fitted($parts, array_slice($texts, 1));
        if ($rest !== null) {
            return [(string) $mended, ...$rest];
        }

        return $part->optional ? $this->fitted($parts, $texts) : null;
    }

    /** Reads a name back into its parts and says what is wrong where. */
    public function read(string $name): Reading
    {
        $texts = explode($this->separator, $name);
        if (count($texts) === count($this->parts)) {
            $values = [];
            foreach ($this->parts as $i => $part) {
                if (! $part->takes($texts[$i])) {
                    return $this->closely($name, $texts);
                }
                $values[$part->name] = $texts[$i];
            }

            return new Reading($values, []);
        }

        return $this->closely($name, $texts);
    }

    /** @param list<string> $texts */
    private function closely(string $name, array $texts): Reading
    {
        $required = array_filter($this->parts, static fn (NamePart $p): bool => ! $p->optional);
        $values = [];
        $trouble = [];
        $spare = count($texts) - count($required);
        $at = 0;
        foreach ($this->parts as $part) {
            if ($part->optional) {
                $fits = $spare > 0 && $texts !== [] && $part->trouble($texts[0], $this->separator) === null;
                if (! $fits) {
                    continue;
                }
                $spare--;
            }
            if ($texts === []) {
                $trouble[] = new Trouble($part->name, strlen($name), 0, "the part {$part->name} is missing");

                continue;
            }
            $text = array_shift($texts);
            $why = $part->trouble($text, $this->separator);
            if ($why !== null) {
                $trouble[] = new Trouble($part->name, $at, strlen($text), $why);
            }
            $values[$part->name] = $text;
            $at += strlen($text) + strlen($this->separator);
        }
        if ($texts !== []) {
            $rest = implode($this->separator, $texts);
            $trouble[] = new Trouble(null, $at, strlen($rest), "“{$rest}” is more than the pattern has");
        }

        return new Reading($values, $trouble);
    }
}
