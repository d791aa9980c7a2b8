<?php

declare(strict_types=1);

namespace Vestigon\Core\Naming;

/** How names are made: parts in order, between them a separator. */
final readonly class Pattern
{
    /** What people write between parts. */
    private const SEPARATORS = [' | ', '|', ' - ', ' – ', '_', '-', ' / ', '/', ' · ', ';', ',', ' '];

    /** May parts be left out? */
    private bool $mayBeShorter;

    /**
     * @param list<NamePart> $parts
     * @param non-empty-string $separator
     */
    public function __construct(
        public array $parts,
        public string $separator,
        public NamedFor $for = new NamedFor(),
        public string $title = '',
    ) {
        $this->mayBeShorter = array_filter($parts, static fn (NamePart $p): bool => $p->optional) !== [];
    }

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
        if ($this->parts($name) !== null) {
            return null;
        }
        foreach (array_unique([$this->separator, ...self::SEPARATORS]) as $separator) {
            $texts = array_map(trim(...), explode($separator, trim($name)));
            $mended = $this->fitted($this->parts, $texts);
            $proposed = $mended === null ? null : implode($this->separator, $mended);
            if ($proposed !== null && $this->parts($proposed) !== null) {
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
        $values = $this->whole($texts);

        return $values === null ? $this->closely($name, $texts) : new Reading($values, []);
    }

    /**
     * The same of a name that keeps the pattern: asked of every element of an account.
     *
     * @return array<string, string>|null part → text; null: it does not keep it
     */
    public function parts(string $name): ?array
    {
        $texts = explode($this->separator, $name);
        $values = $this->whole($texts);
        if ($values !== null || ! $this->mayBeShorter) {
            return $values;
        }
        $read = $this->closely($name, $texts);

        return $read->trouble === [] ? $read->values : null;
    }

    /**
     * @param list<string> $texts
     * @return array<string, string>|null null: one of the parts is not there, or takes no such text
     */
    private function whole(array $texts): ?array
    {
        if (count($texts) !== count($this->parts)) {
            return null;
        }
        $values = [];
        foreach ($this->parts as $i => $part) {
            $text = $texts[$i];
            // a call for each part of a million names would take longer than all that
            if (
                $text === ''
                || ($part->words !== [] && ! isset($part->allowed[$text]))
                || ($part->matches !== null && ! $part->hasForm($text))
            ) {
                return null;
            }
            $values[$part->name] = $text;
        }

        return $values;
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
