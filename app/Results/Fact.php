<?php

namespace App\Results;

/** What results are made of, where it stands, and how it is added up. */
enum Fact
{
    case Sessions;
    case Shares;
    case Figures;

    /** @return array<string, string> measure → what of a record is added up */
    public function measures(): array
    {
        return match ($this) {
            self::Sessions => [
                'sessions' => 's.views > 0',
                'views' => 's.views',
                'one_page' => 's.views = 1',
                'new_visitors' => 'coalesce(s.is_new, 0)',
            ],
            self::Shares => ['part' => 'c.part', 'value' => 'c.value', 'net' => 'c.net'],
            self::Figures => ['impressions' => 'f.impressions', 'clicks' => 'f.clicks', 'cost' => 'f.cost'],
        };
    }

    /** @param int|null $reading as it was meant, in a reading; null: as it arrived */
    public function from(?int $reading = null): string
    {
        [$sessions, $shares, $of] = $reading === null
            ? ['site_sessions', 'shares', '']
            : ['meant_sessions', 'meant_shares', ' and s.reading_id = c.reading_id'];

        return match ($this) {
            self::Sessions => "{$sessions} s",
            self::Shares => "{$shares} c left join {$sessions} s on s.id = c.session_id{$of}",
            self::Figures => 'figures f left join wanted_lines w on w.node_id = f.node_id',
        };
    }

    /** What narrows it to a reading. */
    public function within(?int $reading): string
    {
        return $reading === null || $this === self::Figures ? '' : " and {$this->table()}.reading_id = {$reading}";
    }

    /** The name of its table in `from`: that has `client_id` and `day`. */
    public function table(): string
    {
        return match ($this) {
            self::Sessions => 's',
            self::Shares => 'c',
            self::Figures => 'f',
        };
    }

    public function currency(): string
    {
        return $this === self::Sessions ? 'null' : "{$this->table()}.currency";
    }

    public function at(Dimension $dimension): string
    {
        $at = match ($this) {
            self::Sessions => $dimension->ofSessions(),
            self::Shares => $dimension->ofShares(),
            self::Figures => $dimension->ofFigures() ?? "''",
        };

        return "coalesce({$at}, '')";
    }
}
