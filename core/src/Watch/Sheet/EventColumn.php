<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Sheet;

use Vestigon\Core\Sheet\Headings;

/** What a column of a sheet says of orders or page views. */
enum EventColumn: string
{
    case At = 'at';
    case Order = 'order';
    case Value = 'value';
    case Currency = 'currency';
    case Click = 'click';
    case Name = 'name';
    case Url = 'url';
    case Referrer = 'referrer';
    case Visitor = 'visitor';

    public function called(): string
    {
        return match ($this) {
            self::At => 'time',
            self::Order => 'order number',
            self::Click => 'click ID',
            self::Name => 'conversion',
            self::Url => 'page',
            default => $this->value,
        };
    }

    /** @return list<string> how it is headed by shops, customer systems and reports (common practice, no source) */
    public function words(): array
    {
        return match ($this) {
            self::At => [
                'at', 'time', 'date', 'date and time', 'datetime', 'timestamp', 'order date', 'order time',
                'ordered at', 'created', 'created at', 'booking date', 'booked at', 'conversion time',
                'conversion date', 'transaction date', 'transaction time', 'closed at', 'close date', 'visit time',
            ],
            self::Order => [
                'order', 'order id', 'order number', 'order no', 'order reference', 'transaction', 'transaction id',
                'transaction number', 'booking', 'booking id', 'booking number', 'booking reference', 'reference',
                'lead id', 'deal id', 'conversion id',
            ],
            self::Value => [
                'value', 'revenue', 'amount', 'total', 'order value', 'order total', 'conversion value', 'net amount',
                'net value', 'net revenue', 'turnover', 'price',
            ],
            self::Currency => ['currency', 'currency code', 'conversion currency'],
            self::Click => ['click', 'click id', 'clickid'],
            self::Name => [
                'conversion', 'conversion name', 'conversion type', 'goal', 'event', 'event name', 'action',
            ],
            self::Url => ['url', 'page', 'page url', 'web address', 'landing page', 'landing url', 'visited page'],
            self::Referrer => ['referrer', 'referer', 'page referrer', 'referring page', 'referring url'],
            self::Visitor => ['visitor', 'visitor id', 'user id', 'person', 'person id'],
        };
    }

    /**
     * @param string $heading as it stands
     * @param list<string> $clicks parameters that platforms hand their click IDs on in: they may head a column too
     * @return self|null null: none of the words that are known
     */
    public static function headed(string $heading, array $clicks): ?self
    {
        $plain = Headings::folded($heading);
        if (in_array($plain, array_map(Headings::folded(...), $clicks), true)) {
            return self::Click;
        }
        $plain = strtr($plain, ['_' => ' ', '-' => ' ']);
        foreach (self::cases() as $column) {
            if (in_array($plain, $column->words(), true)) {
                return $column;
            }
        }

        return null;
    }
}
