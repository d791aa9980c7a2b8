<?php

namespace App\Results;

/**
 * Down to what lines of a set of rollups are told: by all that campaigns are told by, or groups, or ads, together; so
 * that one set answers whatever is asked by any of it.
 */
enum DownTo: string
{
    case Nothing = '';
    case Campaigns = 'campaigns';
    case Groups = 'groups';
    case Ads = 'ads';

    /** @param list<Dimension> $asked the least of it that answers this */
    public static function of(array $asked): self
    {
        foreach (self::cases() as $downTo) {
            $rest = array_filter(
                $asked,
                static fn (Dimension $d): bool => ! in_array($d, $downTo->dimensions(), true),
            );
            if ($rest === []) {
                return $downTo;
            }
        }
        throw new \LogicException('ads are not told by that');
    }

    /** @return list<Dimension> those of the wider first */
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
            Dimension::AdGroup,
            Dimension::Content,
            Dimension::Ad,
        ];

        return match ($this) {
            self::Nothing => [],
            self::Campaigns => array_slice($all, 0, 7),
            self::Groups => array_slice($all, 0, 8),
            self::Ads => $all,
        };
    }
}
