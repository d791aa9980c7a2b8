<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Plan\Choice;
use Vestigon\Core\Plan\Part;
use Vestigon\Core\Plan\Shape;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Url\Encoding;

/** Writes the plan as query text in a platform's own words. */
final readonly class PlanText
{
    /** @param array<string, string> $customNames `field shape` → the custom parameter that gives it */
    public function __construct(private Dialect $dialect, private array $customNames) {}

    /**
     * @param list<string> $without keys to leave out
     * @param Path $at where the text will stand; gives the values that are written out
     */
    public function query(Truth $truth, array $without, Path $at): string
    {
        $pairs = [];
        foreach ($truth->choices as $key => $choice) {
            if (! in_array((string) $key, $without, true)) {
                $pairs[] = $key.'='.implode('', array_map(fn (Part $p): string => $this->part($p, $choice, $at), $choice->parts));
            }
        }

        return implode('&', $pairs);
    }

    private function part(Part $part, Choice $choice, Path $at): string
    {
        if ($part->field === null) {
            return Encoding::encode($part->text ?? '', 1, $this->dialect->assembly->plusForSpace);
        }
        $means = $choice->means[$part->field];
        $syntax = $this->dialect->syntax;
        if ($means->token !== null) {
            return $syntax?->open.$means->token->name.$syntax?->close;
        }
        if (self::usesCustom($part->field, $choice, $this->dialect)) {
            $name = $this->customNames[self::id($part->field, $choice->shape)] ?? throw new \LogicException("no custom parameter was named for {$part->field}");

            return $syntax?->open.$this->dialect->customParameters?->prefix.$name.$syntax?->close;
        }

        return Encoding::encode($choice->fieldValue($part->field, $at->fields(false)), 1, $this->dialect->assembly->plusForSpace);
    }

    /** Is the field given by custom parameters on the nodes that own it? */
    public static function usesCustom(string $field, Choice $choice, Dialect $dialect): bool
    {
        $owner = $choice->means[$field]->owner ?? null;

        return $owner instanceof Role && in_array($dialect->levelOf($owner)?->id, $dialect->customParameters->levels ?? [], true);
    }

    public static function id(string $field, Shape $shape): string
    {
        return "{$field} {$shape->value}";
    }
}
