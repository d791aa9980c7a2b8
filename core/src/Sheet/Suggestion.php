<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\TokenKind;

/**
 * Suggests what a table's columns mean, from its headings and first rows: what cells look like says the most, then what
 * headings usually mean, then numbers that stand beside a name. Nothing is settled by it: a person confirms.
 */
final class Suggestion
{
    /** So many rows are looked at. */
    public const ROWS = 200;

    private const WORDS = 12;

    private readonly TradeWords $words;

    private readonly Cells $cells;

    public function __construct(private readonly Dialect $dialect)
    {
        $this->words = new TradeWords($dialect);
        $this->cells = new Cells();
    }

    /**
     * @param list<list<string|int|float|null>> $rows the table's first rows
     * @param int|null $at the place of the heading row, where a person has said so; null: it is found
     * @return SuggestedTable|null null: it has no headings
     */
    public function of(string $title, array $rows, ?int $at = null): ?SuggestedTable
    {
        $at ??= HeadingRow::at($rows, null);
        if ($at === null || ! isset($rows[$at])) {
            return null;
        }
        $columns = [];
        $kind = null;
        $body = array_slice($rows, $at + 1, self::ROWS);
        foreach ($rows[$at] as $place => $heading) {
            $heading = trim((string) $heading);
            if ($heading === '') {
                continue;
            }
            $cells = array_map(fn (array $row): string => $this->cells->text($row[$place] ?? null), $body);
            $filled = array_values(array_filter($cells, static fn (string $c): bool => $c !== ''));
            $kind ??= $this->rowKind($heading, $filled);
            if ($kind?->heading !== $heading) {
                $columns[] = $this->column($heading, $filled);
            }
        }

        return new SuggestedTable($title, $at, ...$this->levelled($this->numbered($columns, $body, $rows[$at]), $kind));
    }

    /** @param list<string> $filled */
    private function column(string $heading, array $filled): SuggestedColumn
    {
        [$look, $why] = $this->look($filled);
        $word = $this->words->meaning($heading);
        $isFigure = in_array($word, ['day', 'impressions', 'clicks', 'cost', 'conversions', 'value'], true);
        // a list of custom parameters looks like a suffix
        if ($look !== null && ! $isFigure && $word !== 'custom') {
            return new SuggestedColumn(
                $heading,
                new Meaning(Says::Slot, name: $look),
                $word === "slot.{$look}" ? Certainty::Sure : Certainty::Likely,
                $why,
            );
        }
        if ($word === null || ($filled !== [] && str_starts_with($word, 'slot.') && $this->isNumeric($filled))) {
            return new SuggestedColumn(
                $heading,
                new Meaning(Says::Nothing),
                Certainty::Open,
                'Nothing tells what it means.',
            );
        }
        $means = $this->meaning($word);
        [$values, $asked] = $this->values($means->says, $filled);

        return new SuggestedColumn(
            $heading,
            $means,
            $asked === [] ? Certainty::Likely : Certainty::Open,
            "“{$heading}” usually means that.",
            $values,
            $asked,
            $means->says === Says::CustomAll ? $this->form($filled) : new CustomForm(),
        );
    }

    /**
     * The form in which all of its cells are lists of custom parameters; of several, the one that finds the most.
     *
     * @param list<string> $filled
     */
    private function form(array $filled): CustomForm
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

    /**
     * What its cells look like.
     *
     * @param list<string> $filled
     * @return array{string|null, string} a slot, and why
     */
    private function look(array $filled): array
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

    private function meaning(string $word): Meaning
    {
        [$of, $what] = explode('.', $word, 2) + [1 => ''];
        $says = Says::tryFrom($what);

        return match (true) {
            $of === 'slot' => new Meaning(Says::Slot, name: $what),
            $word === 'custom' => new Meaning(Says::CustomAll),
            $word === 'standing', $what === 'standing' => new Meaning(Says::Standing, $what === '' ? null : $of),
            Says::tryFrom($word) !== null => new Meaning(Says::from($word)),
            $says !== null => new Meaning($says, $of),
            default => new Meaning(Says::Figure, name: $word),
        };
    }

    /**
     * @param list<string> $filled
     * @return array{array<string, string>|null, list<string>} what its words say, and those that are not known
     */
    private function values(Says $says, array $filled): array
    {
        if (! in_array($says, [Says::Type, Says::Standing, Says::KeywordMatch], true)) {
            return [null, []];
        }
        $values = $asked = [];
        foreach (array_slice(array_unique($filled), 0, self::WORDS) as $cell) {
            $said = $this->words->said($says, $cell);
            if ($said === null) {
                $asked[] = $cell;
            } else {
                $values[$cell] = $said;
            }
        }

        return [$values === [] ? null : $values, $asked];
    }

    /**
     * Numbers that are all different, beside a name that has none: they are its ids.
     *
     * @param list<SuggestedColumn> $columns
     * @param list<list<string|int|float|null>> $body
     * @param list<string|int|float|null> $headings
     * @return list<SuggestedColumn>
     */
    private function numbered(array $columns, array $body, array $headings): array
    {
        $headings = array_map(static fn (mixed $h): string => trim((string) $h), $headings);
        $places = array_flip(array_reverse($headings, true));
        $has = static fn (Says $says, ?string $level): bool => array_filter(
            $columns,
            static fn (SuggestedColumn $c): bool => $c->means->says === $says && $c->means->level === $level,
        ) !== [];
        foreach ($columns as $i => $column) {
            $beside = [$columns[$i + 1] ?? null, $columns[$i - 1] ?? null];
            foreach ($column->certainty === Certainty::Open && $column->asked === [] ? $beside : [] as $other) {
                if ($other?->means->says !== Says::Name || $has(Says::Id, $other->means->level)) {
                    continue;
                }
                $place = $places[$column->heading];
                $cells = array_map(fn (array $row): string => $this->cells->text($row[$place] ?? null), $body);
                $filled = array_filter($cells, static fn (string $c): bool => $c !== '');
                if ($filled !== [] && $filled === array_unique($filled) && $this->isNumeric($filled)) {
                    $columns[$i] = new SuggestedColumn(
                        $column->heading,
                        new Meaning(Says::Id, $other->means->level),
                        Certainty::Likely,
                        "Numbers that are all different, beside “{$other->heading}”.",
                    );
                }
            }
        }

        return $columns;
    }

    /**
     * Rows are of the narrowest level that has a column; its columns are the row's own.
     *
     * @param list<SuggestedColumn> $columns
     * @return array{string|null, RowKind|null, list<SuggestedColumn>}
     */
    private function levelled(array $columns, ?RowKind $kind): array
    {
        $own = null;
        foreach ($kind === null ? $this->dialect->levels : [] as $level) {
            foreach ($columns as $column) {
                if ($column->means->says->isOfAnyLevel() && $column->means->level === $level->id) {
                    $own = $level->id;
                }
            }
        }

        return [
            $own,
            $kind,
            array_map(static function (SuggestedColumn $column) use ($own): SuggestedColumn {
                $means = $column->means;
                $isOther = $means->says === Says::Standing && $means->level !== null && $means->level !== $own;

                return match (true) {
                    $isOther => $column->as(new Meaning(Says::Nothing)), // a wider element's, said on its own rows
                    $means->level === $own || $means->says === Says::Standing => $column->as(
                        new Meaning($means->says, null, $means->name),
                    ),
                    default => $column,
                };
            }, $columns),
        ];
    }

    /** @param list<string> $filled */
    private function rowKind(string $heading, array $filled): ?RowKind
    {
        $levels = [];
        foreach (array_unique($filled) as $cell) {
            $level = $this->words->level($cell);
            if ($level === null) {
                return null;
            }
            $levels[$cell] = $level;
        }

        return count(array_unique($levels)) > 1 ? new RowKind($heading, $levels) : null;
    }

    /** @param array<string> $filled */
    private function isNumeric(array $filled): bool
    {
        return array_filter($filled, static fn (string $c): bool => ! ctype_digit($c)) === [];
    }
}
