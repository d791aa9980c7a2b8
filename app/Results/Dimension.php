<?php

namespace App\Results;

/** What results can be told by, and where each record has it. */
enum Dimension: string
{
    case Channel = 'channel';
    case Source = 'source';
    case Medium = 'medium';
    case Campaign = 'campaign';
    case Content = 'content';
    case Term = 'term';
    case Platform = 'platform';
    case Account = 'account';
    case AdCampaign = 'ad-campaign';
    case AdGroup = 'ad-group';
    case Ad = 'ad';
    case Keyword = 'keyword';
    case Placement = 'placement';
    case Landing = 'landing';
    case Device = 'device';
    case Visitor = 'visitor';
    case Link = 'link';
    case Site = 'site';
    case Item = 'item';
    case Key = 'key'; // one of the client's plan keys
    case Day = 'day';
    case Week = 'week';
    case Month = 'month';

    /** In `site_sessions s`; of a plan key, by its number. */
    public function ofSessions(?int $key = null): string
    {
        return match ($this) {
            self::Key => self::said('s', $key),
            self::Account => 's.account_id',
            self::AdCampaign => 's.campaign_id',
            self::AdGroup => 's.group_id',
            self::Ad => 's.node_id',
            self::Visitor => "case s.is_new when 1 then 'new' when 0 then 'returning' else '' end",
            self::Site => 's.collector_id',
            self::Link => 's.link_id',
            self::Item => "''",
            self::Day, self::Week, self::Month => $this->ofDay('s.day'),
            default => "s.{$this->value}",
        };
    }

    /** In `shares c`, with the session that it is of as `s`, or none, and what of it is one item's as `i`. */
    public function ofShares(?int $key = null): string
    {
        return match ($this) {
            self::Account => 'c.account_id',
            self::AdCampaign => 'c.campaign_id',
            self::AdGroup => 'c.group_id',
            self::Ad => 'c.node_id',
            self::Platform => "coalesce(s.platform, (select dialect from accounts where id = c.account_id), '')",
            self::Day, self::Week, self::Month => $this->ofDay('c.day'),
            self::Site => '(select collector_id from conversions v where v.arrival_id = c.conversion_id)',
            self::Item => 'i.item',
            default => "coalesce({$this->ofSessions($key)}, '')",
        };
    }

    /** In `figures f`, with the line that the ad is wanted in as `w`. Null: platforms say nothing by it. */
    public function ofFigures(?int $key = null): ?string
    {
        return match ($this) {
            self::Key => self::said('w', $key),
            self::Channel,
            self::Source,
            self::Medium,
            self::Campaign,
            self::Content,
            self::Platform => "coalesce(w.{$this->value}, '')",
            self::Account => 'f.account_id',
            self::AdCampaign => 'f.campaign_id',
            self::AdGroup => 'f.group_id',
            self::Ad => 'f.node_id',
            self::Day, self::Week, self::Month => $this->ofDay('f.day'),
            default => null,
        };
    }

    /** Are ads told by it? Platforms say something by it then. */
    public function isOfAds(): bool
    {
        return in_array($this, DownTo::Ads->dimensions(), true);
    }

    public function isTime(): bool
    {
        return in_array($this, [self::Day, self::Week, self::Month], true);
    }

    /** A day told by this; weeks as ISO 8601 counts them. */
    public function ofDay(string $day): string
    {
        return match ($this) {
            self::Week => "date_format({$day}, '%x-W%v')",
            self::Month => "date_format({$day}, '%Y-%m')",
            default => $day,
        };
    }

    private static function said(string $table, ?int $key): string
    {
        return "json_value({$table}.others, '$.\"{$key}\"')";
    }
}
