<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** Reads a plan document (`vestigon.plan/1`). */
final class PlanReader
{
    public const FORMAT = 'vestigon.plan/1';

    /** @throws UnusableInput with the place of the first thing that is wrong */
    public static function read(Cursor $c): Plan
    {
        if ($c->at('format')->value !== self::FORMAT) {
            $c->at('format')->fail('"'.self::FORMAT.'" is wanted');
        }
        $clickId = $c->at('clickId');
        if (! in_array($clickId->string(), ['required', 'optional'], true)) {
            $clickId->fail('"required" or "optional" is wanted');
        }

        return new Plan(
            $c->at('id')->text(),
            $c->at('title')->string(),
            $clickId->string() === 'required',
            self::parameters($c->at('parameters')),
            $c->has('channels') ? $c->at('channels')->stringMap() : [],
            $c->has('variants') ? self::variants($c->at('variants')) : [],
        );
    }

    /**
     * @return list<Variant>
     *
     * @throws UnusableInput
     */
    private static function variants(Cursor $list): array
    {
        $variants = [];
        foreach ($list->list() as $item) {
            $variant = self::variant($item);
            if (isset($variants[$variant->id])) {
                $item->at('id')->fail("\"{$variant->id}\" is there twice");
            }
            $variants[$variant->id] = $variant;
        }

        return array_values($variants);
    }

    private static function variant(Cursor $c): Variant
    {
        $for = $c->at('for');
        $where = [];
        foreach ($for->has('where') ? $for->at('where')->list() : [] as $item) {
            $field = $item->at('field')->string();
            if (! in_array(Fields::owner($field), [Role::Account, Role::Campaign, Role::Group], true)) {
                $item->at('field')->fail('a field of the account, campaign or group is wanted');
            }
            $where[$field] = self::some($item->at('is'));
        }
        $platforms = $for->has('platforms') ? self::some($for->at('platforms')) : null;
        $types = $for->has('types') ? self::some($for->at('types')) : null;
        if ($platforms === null && $types === null && $where === []) {
            $for->fail('"platforms", "types" or "where" is wanted: for everything there is the plan itself');
        }

        return new Variant(
            $c->at('id')->text(),
            $c->at('title')->someText(),
            $platforms,
            $types,
            $where,
            self::parameters($c->at('parameters')),
        );
    }

    /** @return list<string> at least one */
    private static function some(Cursor $list): array
    {
        return $list->strings() ?: $list->fail('at least one is wanted');
    }

    /**
     * @return list<Parameter>
     *
     * @throws UnusableInput
     */
    public static function parameters(Cursor $list): array
    {
        $parameters = [];
        foreach ($list->list() as $item) {
            $parameter = self::parameter($item);
            if (isset($parameters[$parameter->key])) {
                $item->at('key')->fail("\"{$parameter->key}\" is there twice");
            }
            $parameters[$parameter->key] = $parameter;
        }

        return array_values($parameters);
    }

    private static function parameter(Cursor $c): Parameter
    {
        $key = $c->at('key')->string();
        if (preg_match('/^[A-Za-z0-9._~-]+$/D', $key) !== 1) {
            $c->at('key')->fail('a key of letters, digits, ".", "_", "~" and "-" is wanted');
        }
        $platforms = [];
        foreach ($c->has('platforms') ? $c->at('platforms')->map() : [] as $id => $override) {
            $platforms[$id] =
                $override->has('omit') && $override->at('omit')->bool()
                    ? null
                    : self::parts($override->at('parts'));
        }

        return new Parameter(
            $key,
            self::parts($c->at('parts')),
            $c->has('shape') ? $c->at('shape')->enum(Shape::class) : Shape::AsIs,
            $c->has('required') && $c->at('required')->bool(),
            array_map(self::parts(...), $c->has('fallback') ? $c->at('fallback')->list() : []),
            $c->has('families') ? $c->at('families')->strings() : null,
            $platforms,
            $c->has('vocabulary') ? self::vocabulary($c->at('vocabulary')) : new Vocabulary(),
        );
    }

    /** Each word as text, or as `{value, retired, use}`. */
    private static function vocabulary(Cursor $list): Vocabulary
    {
        $words = [];
        foreach ($list->list() as $item) {
            if (is_string($item->value)) {
                $words[$item->string()] = null;
            } else {
                $retired = $item->has('retired') && $item->at('retired')->bool();
                $words[$item->at('value')->string()] = $retired
                    ? ($item->has('use')
                        ? $item->at('use')->string()
                        : '')
                    : null;
            }
        }

        return new Vocabulary($words);
    }

    /** @return list<Part> */
    private static function parts(Cursor $list): array
    {
        $parts = array_map(static function (Cursor $c): Part {
            if ($c->has('text') === $c->has('field')) {
                $c->fail('either "text" or "field" is wanted');
            }
            if ($c->has('text')) {
                return Part::text($c->at('text')->string());
            }
            $field = $c->at('field')->string();

            return Fields::exists($field)
                ? Part::field($field)
                : $c->at('field')->fail("there is no field \"{$field}\"");
        }, $list->list());

        return $parts === [] ? $list->fail('at least one part is wanted') : $parts;
    }
}
