<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Plan\Choice;
use Vestigon\Core\Plan\Part;
use Vestigon\Core\Plan\Shape;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Url\Encoding;

/** Writes the plan as query text in a platform's own words. */
final readonly class PlanText
{
    /** @param array<string, string> $customNames `field shape` → the custom parameter that gives it */
    public function __construct(private Dialect $dialect, private array $customNames, private Way $way) {}

    /**
     * @param list<string> $keys in the plan's order
     * @param Path $at where the text will stand; gives the values that are written out
     * @param bool $fills tokens are filled there; else all is written out
     */
    public function query(Truth $truth, array $keys, Path $at, bool $fills): string
    {
        $pairs = [];
        foreach ($truth->choices as $key => $choice) {
            if (in_array((string) $key, $keys, true)) {
                $texts = array_map(fn (Part $p): string => $this->part($p, $choice, $at, $fills), $choice->parts);
                $pairs[] = $key.'='.implode('', $fills ? array_map(fn (string $t, int $i): string => $this->isToken($choice->parts[$i], $choice) ? $t : $this->without($t, count($texts) > 1), $texts, array_keys($texts)) : $texts);
            }
        }

        return implode('&', $pairs);
    }

    /**
     * The fields whose values are written out in such a text: it differs with them.
     *
     * @param list<string> $keys
     * @return list<string>
     */
    public function writtenOut(Truth $truth, array $keys, bool $fills): array
    {
        $fields = [];
        foreach ($keys as $key) {
            $choice = $truth->choices[$key];
            foreach ($choice->parts as $part) {
                if ($part->field !== null && ! ($fills && $this->isToken($part, $choice))) {
                    $fields[$part->field] = $part->field;
                }
            }
        }

        return array_values($fields);
    }

    private function part(Part $part, Choice $choice, Path $at, bool $fills): string
    {
        if ($part->field === null) {
            return Encoding::encode($part->text ?? '', 1, $this->dialect->assembly->plusForSpace);
        }
        $means = $choice->means[$part->field];
        $syntax = $this->dialect->syntax;
        if ($fills && $means->token !== null) {
            return $syntax?->open.$means->token->name.$syntax?->close;
        }
        if ($fills && $this->way->usesCustom($part->field, $choice, $this->dialect)) {
            $name = $this->customNames[self::id($part->field, $choice->shape)] ?? throw new \LogicException("no custom parameter was named for {$part->field}");

            return $syntax?->open.$this->dialect->customParameters?->prefix.$name.$syntax?->close;
        }

        return Encoding::encode($choice->fieldValue($part->field, $at->fields(false)), 1, $this->dialect->assembly->plusForSpace);
    }

    private function isToken(Part $part, Choice $choice): bool
    {
        return $part->field !== null && ($choice->means[$part->field]->token !== null || $this->way->usesCustom($part->field, $choice, $this->dialect));
    }

    /**
     * Fixed text that could be taken for a mark of the platform's tokens, written so that it can't. Percent-encoding leaves the value what it is.
     *
     * @param bool $beside a token may stand right beside it
     */
    private function without(string $text, bool $beside): string
    {
        foreach (array_unique([$this->dialect->syntax->open ?? '', $this->dialect->syntax->close ?? '']) as $mark) {
            if ($mark !== '' && (str_contains($text, $mark) || $beside && (str_starts_with($text, $mark[-1]) || str_ends_with($text, $mark[0])))) {
                $text = str_replace($mark[0], sprintf('%%%02X', ord($mark[0])), $text);
            }
        }

        return $text;
    }

    public static function id(string $field, Shape $shape): string
    {
        return "{$field} {$shape->value}";
    }
}
