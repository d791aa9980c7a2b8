<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\TokenKind;

/** What the cells of a column look like, whatever its heading. */
final readonly class CellLooks
{
    public function __construct(private Dialect $dialect) {}

    /**
     * Which slot's texts they are.
     *
     * @param list<string> $filled
     * @return array{string|null, string} a slot, and why
     */
    public function slot(array $filled): array
    {
        if ($filled === []) {
            return [null, ''];
        }
        $all = implode("\n", $filled);
        $landing = array_filter(
            $this->dialect->tokens,
            static fn ($token): bool => $token->kind === TokenKind::Landing,
        );
        foreach ($landing as $token) {
            $written = $this->dialect->written($token->name);
            if (str_contains(strtolower($all), strtolower($written))) {
                return ['template', "Its cells hold {$written}."];
            }
        }
        $isWeb = static fn (string $cell): bool => preg_match('~^https?://~i', $cell) === 1;
        if (count(array_filter($filled, $isWeb)) === count($filled)) {
            return ['landing', 'All of its cells are web addresses.'];
        }
        $open = $this->dialect->syntax?->open;
        $isQuery = static fn (string $cell): bool => preg_match('~^[^\s/:;]+=~', $cell) === 1 && ! $isWeb($cell);
        $hasMarks = $open !== null && str_contains($all, $open);
        if ($hasMarks && count(array_filter($filled, $isQuery)) === count($filled)) {
            return ['suffix', "Its cells are pairs of key and value, with {$open} in them."];
        }

        return [null, ''];
    }

    /**
     * The form in which all of its cells are lists of custom parameters; of several, the one that finds the most.
     *
     * @param list<string> $filled
     */
    public function form(array $filled): CustomForm
    {
        $prefix = $this->dialect->customParameters->prefix ?? '';
        [$best, $most] = [new CustomForm(), 0];
        $marks = [
            [($this->dialect->syntax->open ?? '').$prefix, $this->dialect->syntax->close ?? ''],
            [$prefix, ''],
            ['', ''],
        ];
        foreach ($marks as [$open, $close]) {
            foreach ([';', '&', ',', '|'] as $pair) {
                foreach (['=', ':'] as $is) {
                    $form = new CustomForm($pair, $is, $open, $close);
                    $found = array_map(static fn (string $c): int => count($form->parameters($c) ?? []), $filled);
                    if ($found !== [] && min($found) > 0 && array_sum($found) > $most) {
                        [$best, $most] = [$form, array_sum($found)];
                    }
                }
            }
        }

        return $best;
    }
}
