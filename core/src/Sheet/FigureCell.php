<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** Reads a day or a number out of a cell, as reports write them. */
final readonly class FigureCell
{
    /** What stands around an amount: a sign of a currency, or its three letters (ISO 4217). */
    private const CURRENCY = '/^(?:\p{Sc}|[A-Z]{3}\b)\s*|\s*(?:\p{Sc}|\b[A-Z]{3})$/u';

    /** Day, month and year by their places. */
    private const DAYS = [
        '/^(?<y>\d{4})(?<mark>[-\/.]?)(?<m>\d\d)\k<mark>(?<d>\d\d)$/D',
        '/^(?<d>\d{1,2})\.(?<m>\d{1,2})\.(?<y>\d{4})$/D',
    ];

    /** With slashes, where one of them can be no month. */
    private const PLAIN = [
        '/^(?<d>1[3-9]|2\d|3[01])[\/-](?<m>\d{1,2})[\/-](?<y>\d{4})$/D',
        '/^(?<m>\d{1,2})[\/-](?<d>1[3-9]|2\d|3[01])[\/-](?<y>\d{4})$/D',
        '/^(?<m>\d{1,2})[\/-](?<d>\k<m>)[\/-](?<y>\d{4})$/D',
    ];

    /** With slashes, in an order that is known. */
    private const ORDERED = [
        'day' => '/^(?<d>\d{1,2})[\/-](?<m>\d{1,2})[\/-](?<y>\d{4})$/D',
        'month' => '/^(?<m>\d{1,2})[\/-](?<d>\d{1,2})[\/-](?<y>\d{4})$/D',
    ];

    /**
     * @param string $decimal the mark between a number's whole and its parts: `.` or `,`
     * @param DayOrder|null $order null: a day that could be two is none
     */
    public function __construct(private string $decimal, private ?DayOrder $order = null) {}

    /**
     * @param string|int|float|null $raw as the sheet holds it: a spreadsheet's number has no marks
     * @return string|null digits, with a point where there are parts; null: it is no number
     */
    public function number(string $cell, string|int|float|null $raw): ?string
    {
        if (is_int($raw) || is_float($raw)) {
            return is_int($raw) ? (string) $raw : rtrim(rtrim(sprintf('%.9F', $raw), '0'), '.');
        }
        $plain = (string) preg_replace(self::CURRENCY, '', $cell);
        $other = $this->decimal === '.' ? ',' : '.';
        $last = strrpos($plain, $other);
        if ($last !== false && preg_match('/^\d{3}(?!\d)/', substr($plain, $last + 1)) !== 1) {
            return null; // 12,5 where a comma stands between thousands
        }
        $plain = (string) preg_replace("/(?<=\d)[\s\p{Zs}'’\\{$other}](?=\d)/u", '', $plain);
        $plain = strtr($plain, [$this->decimal => '.', '−' => '-']);

        return preg_match('/^-?\d{1,18}(?:\.\d{1,9})?$/D', $plain) === 1 ? $plain : null;
    }

    /** @return string|null YYYY-MM-DD; null: it is no day, or could be two */
    public function day(string $cell): ?string
    {
        $cell = (string) preg_replace('/[ T]\d\d?:\d\d(:\d\d(\.\d+)?)?Z?$/', '', $cell);
        $slashed = $this->order === null ? self::PLAIN : [self::ORDERED[$this->order->value]];
        foreach ([...self::DAYS, ...$slashed] as $form) {
            if (
                preg_match($form, $cell, $at) === 1
                && checkdate((int) $at['m'], (int) $at['d'], (int) $at['y'])
            ) {
                return sprintf('%04d-%02d-%02d', $at['y'], $at['m'], $at['d']);
            }
        }

        return null;
    }
}
