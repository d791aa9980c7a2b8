<?php

namespace App\Results;

/** What results are made of, where it stands, and how it is added up. */
enum Fact
{
    case Sessions;
    case Shares;
    case Figures;

    /** What of a share is each item's: a share without any stands by itself. */
    public const ITEMS =
        "left join json_table(coalesce(c.items, '[]'), '$[*]' columns("
            ."item varchar(128) path '$.item', part int path '$.part', "
            ."value bigint path '$.value', net bigint path '$.net')) i on true";

    /**
     * @param bool $byItem is what is bought told apart?
     * @return array<string, string> measure → what of a record is added up
     */
    public function measures(bool $byItem = false): array
    {
        return match ($this) {
            self::Sessions => [
                'sessions' => 's.views > 0',
                'views' => 's.views',
                'one_page' => 's.views = 1',
                'new_visitors' => 'coalesce(s.is_new, 0)',
            ],
            self::Shares => $byItem
                ? [
                    'part' => 'coalesce(i.part, c.part)',
                    'value' => 'coalesce(i.value, c.value)',
                    'net' => 'coalesce(i.net, c.net)',
                ]
                : ['part' => 'c.part', 'value' => 'c.value', 'net' => 'c.net'],
            self::Figures => ['impressions' => 'f.impressions', 'clicks' => 'f.clicks', 'cost' => 'f.cost'],
        };
    }

    /**
     * @param int|null $reading as it was meant, in a reading; null: as it arrived
     * @param bool $byItem is what is bought told apart?
     */
    public function from(?int $reading = null, bool $byItem = false): string
    {
        [$sessions, $shares, $of] = $reading === null
            ? ['site_sessions', 'shares', '']
            : ['meant_sessions', 'meant_shares', ' and s.reading_id = c.reading_id'];

        return match ($this) {
            self::Sessions => "{$sessions} s",
            self::Shares => "{$shares} c left join {$sessions} s on s.id = c.session_id{$of} "
                .($byItem ? self::ITEMS : ''),
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

    public function at(By $by): string
    {
        $at = match ($this) {
            self::Sessions => $by->dimension->ofSessions($by->key),
            self::Shares => $by->dimension->ofShares($by->key),
            self::Figures => $by->dimension->ofFigures($by->key) ?? "''",
        };

        return "coalesce({$at}, '')";
    }
}
