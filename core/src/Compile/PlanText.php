<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Plan\Choice;
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
     * @param int $depth how many hops the text stands inside of: each decodes it once
     */
    public function query(Truth $truth, array $keys, Path $at, bool $fills, int $depth = 0): string
    {
        $pairs = [];
        foreach ($truth->choices as $key => $choice) {
            if (in_array((string) $key, $keys, true)) {
                $pairs[] = Encoding::encode("{$key}=", $depth).$this->value($choice, $at, $fills, $depth);
            }
        }

        return implode(Encoding::encode('&', $depth), $pairs);
    }

    /**
     * The fields whose values are written out in such a text: it differs with them.
     *
     * @param list<string> $keys
     * @return list<string>
     */
    public function writtenOut(Truth $truth, array $keys, ?string $type, bool $fills, int $depth = 0): array
    {
        $fields = [];
        foreach ($keys as $key) {
            $choice = $truth->choices[$key];
            foreach ($choice->parts as $part) {
                if (
                    $part->field !== null
                    && ($fills ? $this->token($part->field, $choice, $type, $depth) : null) === null
                ) {
                    $fields[$part->field] = $part->field;
                }
            }
        }

        return array_values($fields);
    }

    private function value(Choice $choice, Path $at, bool $fills, int $depth): string
    {
        $value = '';
        foreach ($choice->parts as $part) {
            $token =
                $fills && $part->field !== null
                    ? $this->token($part->field, $choice, $at->campaignType(), $depth)
                    : null;
            if ($token !== null) {
                $value .= $token;

                continue;
            }
            $text =
                $part->field === null ? $part->text ?? '' : $choice->fieldValue($part->field, $at->fields(false));
            $text = Encoding::encode($text, 1 + $depth, $this->dialect->assembly->plusForSpace);
            $value .= $fills ? $this->without($text, count($choice->parts) > 1) : $text;
        }

        return $value;
    }

    /** What gives a field at the click, as it is written; null: its value has to be written out. */
    private function token(string $field, Choice $choice, ?string $type, int $depth): ?string
    {
        $means = $choice->means[$field];
        $token = $means->tokenAt($depth, $this->dialect, $type);
        if ($token !== null) {
            return $this->dialect->written($token->name);
        }
        if ($means->token !== null || $depth > 0 || ! $this->way->usesCustom($field, $choice, $this->dialect)) {
            return null; // a custom parameter is encoded once, wherever it stands
        }
        $name =
            $this->customNames[self::id($field, $choice->shape)]
            ?? throw new \LogicException("no custom parameter was named for {$field}");

        return $this->dialect->written($this->dialect->customParameters?->prefix.$name);
    }

    /**
     * Fixed text that could be taken for a mark of the platform's tokens, written so that it can't. Percent-encoding
     * leaves the value what it is.
     *
     * @param bool $beside a token may stand right beside it
     */
    private function without(string $text, bool $beside): string
    {
        foreach (
            array_unique([$this->dialect->syntax->open ?? '', $this->dialect->syntax->close ?? '']) as $mark
        ) {
            if (
                $mark !== ''
                && (str_contains($text, $mark)
                    || ($beside && (str_starts_with($text, $mark[-1]) || str_ends_with($text, $mark[0]))))
            ) {
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
