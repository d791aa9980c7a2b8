<?php

namespace App\Results;

/** What one set of rollups tells apart: all down to campaigns, groups or ads; and other dimensions beside. */
final readonly class RollupSet
{
    /** As many numbers as a line of rollups has for what it is told by. */
    public const MOST = 4;

    /** @param list<By> $beside in the order of their columns, none of what ads are told by */
    public function __construct(public DownTo $downTo, public array $beside) {}

    /** @param list<By> $columns what is asked, none of time */
    public static function of(array $columns): self
    {
        $ofAds = $beside = [];
        foreach ($columns as $by) {
            if ($by->dimension->isOfAds()) {
                $ofAds[] = $by->dimension;
            } else {
                $beside[$by->column()] = By::ofColumn($by->column());
            }
        }
        ksort($beside);

        return new self(DownTo::of($ofAds), array_values($beside));
    }

    public static function named(string $name): self
    {
        $names = array_values(array_filter(explode(',', $name), strlen(...)));
        $downTo = DownTo::tryFrom($names[0] ?? '');

        return new self(
            $downTo ?? DownTo::Nothing,
            array_map(By::ofColumn(...), $downTo === null ? $names : array_slice($names, 1)),
        );
    }

    public function name(): string
    {
        return implode(',', [
            ...$this->tellsAds() ? [$this->downTo->value] : [],
            ...array_map(static fn (By $by): string => $by->column(), $this->beside),
        ]);
    }

    /** Is the first number of a line that of what ads are told by? */
    public function tellsAds(): bool
    {
        return $this->downTo !== DownTo::Nothing;
    }

    /** Has a line of rollups room for it? Those that have not would be as long as what they add up. */
    public function isKept(): bool
    {
        return (int) $this->tellsAds() + count($this->beside) <= self::MOST;
    }

    /** @return list<By> all that records are read by for it */
    public function columns(): array
    {
        return [...array_map(By::of(...), $this->downTo->dimensions()), ...$this->beside];
    }

    /** Where a line of rollups `r` has the number of a value, with what ads are told by as `a`. */
    public function at(By $by): string
    {
        if ($by->dimension->isOfAds()) {
            return 'a.'.AdValues::column($by->dimension);
        }
        $places = array_flip(array_map(static fn (By $b): string => $b->column(), $this->beside));

        return 'r.d'.((int) $this->tellsAds() + $places[$by->column()]);
    }

    /** Its lines of rollups, as `r`. */
    public function from(): string
    {
        return 'rollups r'.($this->tellsAds() ? ' join rollup_ads a on a.id = r.d0' : '');
    }
}
