<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Plan\Shape;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Template\Part\CustomParameter;
use Vestigon\Core\Template\TemplateReader;

/** Chooses names for the custom parameters that a plan needs, beside those that other texts of the account use. */
final class CustomNames
{
    /**
     * @param list<Truth> $truths
     * @param list<string> $planKeys
     * @return array<string, array{string, string, Shape}> id → name, field, shape
     */
    public static function choose(Account $account, array $truths, array $planKeys): array
    {
        $dialect = $account->dialect;
        $used = self::usedByOthers($account, $planKeys);
        $names = [];
        foreach ($truths as $truth) {
            foreach ($truth->choices as $choice) {
                foreach ($choice->fields() as $field) {
                    $id = PlanText::id($field, $choice->shape);
                    if (! isset($names[$id]) && PlanText::usesCustom($field, $choice, $dialect)) {
                        $name = self::free($field, $choice->shape, $used, $dialect->customParameters->nameLength ?? 16);
                        $used[$name] = true;
                        $names[$id] = [$name, $field, $choice->shape];
                    }
                }
            }
        }

        return $names;
    }

    /** @param array<string, true> $used */
    private static function free(string $field, Shape $shape, array $used, int $length): string
    {
        $base = str_replace('.', '_', $field).($shape === Shape::Slug ? '' : '_asis');
        for ($n = 1; ; $n++) {
            $tail = $n === 1 ? '' : (string) $n;
            $name = substr($base, 0, $length - strlen($tail)).$tail;
            if (! isset($used[$name])) {
                return $name;
            }
        }
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
        $used = [];
        foreach ($account->nodes as $node) {
            foreach ($node->slots as $kind => $text) {
                foreach ($reader->read(Chunks::of($reader->read($text))->without($planKeys, $kind === 'suffix'))->walk() as $part) {
                    if ($part instanceof CustomParameter) {
                        $used[$account->dialect->syntax?->folded($part->name) ?? $part->name] = true;
                    }
                }
            }
        }

        return $used;
    }
}
