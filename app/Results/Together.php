<?php

namespace App\Results;

/**
 * What lines of a set of rollups are told by together: all that campaigns are told by, or all that ads are; so that one
 * set answers whatever is asked by any of it.
 */
enum Together: string
{
    case Nothing = '';
    case Campaigns = 'campaigns';
    case Ads = 'ads';

    /** @param list<Dimension> $asked the least of it that answers this */
    public static function of(array $asked): self
    {
        $of = static fn (self $all): bool => array_udiff(
            $asked,
            $all->dimensions(),
            static fn (Dimension $a, Dimension $b): int => strcmp($a->value, $b->value),
        ) === [];

        return match (true) {
            $of(self::Nothing) => self::Nothing,
            $of(self::Campaigns) => self::Campaigns,
            default => self::Ads,
        };
    }

    /** @return list<Dimension> those of campaigns first */
    public function dimensions(): array
    {
        $all = [
            Dimension::Channel,
            Dimension::Source,
            Dimension::Medium,
            Dimension::Campaign,
            Dimension::Platform,
            Dimension::Account,
            Dimension::AdCampaign,
            Dimension::Content,
            Dimension::AdGroup,
            Dimension::Ad,
        ];

        return match ($this) {
            self::Nothing => [],
            self::Campaigns => array_slice($all, 0, 7),
            self::Ads => $all,
        };
    }
}
