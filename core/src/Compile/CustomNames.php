<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Plan\Fields;
use Vestigon\Core\Plan\Shape;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Template\Element\CustomParameter;
use Vestigon\Core\Template\TemplateReader;

/** Chooses names for the custom parameters that a plan needs, beside those that other texts of the account use. */
final class CustomNames
{
    /**
     * @param list<Truth> $truths
     * @param list<string> $planKeys
     * @param array<string, CustomName> $chosen names that are given already, by field and shape
     * @return array<string, CustomName> by field and shape
     */
    public static function choose(
        Account $account,
        array $truths,
        array $planKeys,
        Way $way,
        array $chosen = [],
    ): array {
        $dialect = $account->dialect;
        $used = self::usedByOthers($account, $planKeys);
        $names = [];
        foreach ($truths as $truth) {
            foreach ($truth->choices as $choice) {
                foreach ($choice->fields() as $field) {
                    $id = PlanText::id($field, $choice->shape);
                    if (! isset($names[$id]) && $way->usesCustom($field, $choice, $dialect)) {
                        $name =
                            $chosen[$id]->name
                            ?? self::present($account, $field, $choice->shape, $used)
                            ?? self::free(
                                $field,
                                $choice->shape,
                                $used,
                                $dialect->customParameters->nameLength ?? 16,
                            );
                        $used[$name] = true;
                        $names[$id] = new CustomName($name, $field, $choice->shape);
                    }
                }
            }
        }

        return $names;
    }

    /**
     * A custom parameter that has the right value on some of the nodes already; the one that has it on most.
     *
     * @param array<string, true> $used
     */
    private static function present(Account $account, string $field, Shape $shape, array $used): ?string
    {
        $right = [];
        $owner = Fields::owner($field);
        foreach ($owner === null ? [] : $account->nodesOn($account->dialect->levelOf($owner)?->id) as $node) {
            if ($node->custom === []) {
                continue;
            }
            $value = $shape->of((new Path($account->dialect, [$node]))->fields(false)[$field] ?? '');
            foreach ($node->custom as $name => $text) {
                if (
                    $text === $value
                    && ! isset($used[$account->dialect->syntax?->folded((string) $name) ?? $name])
                ) {
                    $right[$name] = ($right[$name] ?? 0) + 1;
                }
            }
        }
        arsort($right);

        return $right === [] ? null : (string) array_key_first($right);
    }

    /** @param array<string, true> $used */
    private static function free(string $field, Shape $shape, array $used, int $length): string
    {
        $words = [
            ...preg_split('/[^a-z0-9]+/i', $field, flags: PREG_SPLIT_NO_EMPTY) ?: ['value'],
            ...$shape === Shape::Slug ? [] : ['as', 'is'],
        ];
        for ($n = 1; ; $n++) {
            $tail = $n === 1 ? '' : (string) $n;
            $name = self::fitting($words, $length - strlen($tail)).$tail;
            if (! isset($used[$name])) {
                return $name;
            }
        }
    }

    /**
     * As many of the words as there is room for; of words that are too long by themselves their first letters.
     *
     * @param non-empty-list<string> $words
     */
    private static function fitting(array $words, int $length): string
    {
        for ($count = count($words); $count > 0; $count--) {
            $name = implode('_', array_slice($words, 0, $count));
            if (strlen($name) <= $length) {
                return $name;
            }
        }

        return substr(implode('', array_map(static fn (string $w): string => $w[0], $words)), 0, max(1, $length));
    }

    /**
     * Names in pieces of other keys than the plan's.
     *
     * @param list<string> $planKeys
     * @return array<string, true>
     */
    private static function usedByOthers(Account $account, array $planKeys): array
    {
        $reader = new TemplateReader($account->dialect);
        $used = $seen = [];
        foreach ($account->nodes as $node) {
            foreach ($node->slots as $kind => $text) {
                if (isset($seen[$kind][$text])) {
                    continue;
                }
                $seen[$kind][$text] = true;
                foreach (
                    $reader
                        ->read(
                            $reader
                                ->read($text)
                                ->query($kind === 'suffix')
                                ->without($planKeys),
                        )
                        ->walk() as $part
                ) {
                    if ($part instanceof CustomParameter) {
                        $used[$account->dialect->syntax?->folded($part->name) ?? $part->name] = true;
                    }
                }
            }
        }

        return $used;
    }
}
