<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Url\Query;

/** Adds up sessions, conversions and figures by what they are asked for by; sums are exact. */
final class Report implements Told
{
    /** A visitor who was here within so long, in milliseconds, is not new. */
    private const NEW_AFTER = 400 * 86_400_000;

    /** Parameters by the short names that the trade has for them. */
    private const SHORT = ['content' => 'utm_content', 'term' => 'utm_term'];

    /** What figures can be laid beside: the rest they say nothing about. */
    private const OF_FIGURES = ['ad', 'day', 'week', 'month'];

    /** @var array<string, Line> */
    private array $lines = [];

    /** @var array<string, int> by site and visitor: when the last session began */
    private array $last = [];

    /** @var \WeakMap<Session, string> whether the visitors of told sessions were new */
    private \WeakMap $standing;

    /** @var array<int, list<array{Conversion, int, int}>> which share counts for sessions that were not told, by number */
    private array $waiting = [];

    /**
     * @param list<string> $by
     * @param array<string, string> $ads by click ID
     */
    public function __construct(
        private readonly array $by,
        private readonly Days $days,
        private readonly array $ads = [],
        private readonly Refunds $refunds = new Refunds(),
    ) {
        $this->standing = new \WeakMap();
    }

    public function session(Session $session): void
    {
        $isNew = $this->isNew($session);
        $this->standing[$session] = match ($isNew) {
            true => 'new',
            false => 'returning',
            null => '',
        };
        if ($session->views > 0) {
            $line = $this->line($session, $session->begin);
            $line->sessions++;
            $line->views += $session->views;
            $line->onePage += (int) ($session->views === 1);
            $line->newVisitors += (int) $isNew;
        }
        foreach ($this->waiting[$session->number] ?? [] as [$conversion, $n, $refund]) {
            $this->add($conversion, $n, $refund);
        }
        unset($this->waiting[$session->number]);
    }

    public function conversion(Conversion $conversion): void
    {
        $refunds = Attribution::split($this->refunds->of($conversion->event), count($conversion->shares));
        foreach ($conversion->shares as $i => $share) {
            if ($share->session === null || isset($this->standing[$share->session])) {
                $this->add($conversion, $i, $refunds[$i]);
            } else {
                $this->waiting[$share->session->number][] = [$conversion, $i, $refunds[$i]];
            }
        }
    }

    public function repeated(Event $event): void {}

    /** @throws UnusableInput they can't be laid beside what is asked for by */
    public function figures(Cursor $list): void
    {
        $other = array_diff($this->by, self::OF_FIGURES);
        if ($other !== []) {
            $list->fail('figures are of ads and days: they can\'t be told by '.implode(', ', $other));
        }
        $said = [];
        foreach ($list->list() as $c) {
            // said again, the last counts
            $said[$c->at('day')->string()."\0".$c->at('node')->text()] = $c;
        }
        foreach ($said as $c) {
            $day = $c->at('day')->string();
            $line = $this->lineOf(
                array_map(
                    fn (string $d): string => $d === 'ad' ? $c->at('node')->text() : $this->ofDay($d, $day),
                    array_combine($this->by, $this->by),
                ),
            );
            $line->impressions += $c->at('impressions')->int();
            $line->clicks += $c->at('clicks')->int();
            Line::add($line->cost, $c->at('currency')->string(), $c->at('cost')->int());
        }
    }

    /** @return list<array<string, mixed>> */
    public function toArray(): array
    {
        ksort($this->lines, SORT_STRING);

        return array_map(static fn (Line $l): array => $l->toArray(), array_values($this->lines));
    }

    /** @param int $n which of its shares */
    private function add(Conversion $conversion, int $n, int $refund): void
    {
        [$event, $share] = [$conversion->event, $conversion->shares[$n]];
        $value = $event->value === null ? null : $share->value;
        $bought = Bought::of(
            in_array('item', $this->by, true) ? $event->items : [],
            $n,
            count($conversion->shares),
            $share->part,
            $value,
            $refund,
        );
        foreach ($bought as $one) {
            $line = $this->line($share->session, $event->at, $share->ad, $one->item);
            $line->conversions += $one->part;
            Line::add($line->revenue, $event->currency, $one->value);
            Line::add($line->net, $event->currency, $one->net);
        }
    }

    /** Null: nobody can say. */
    private function isNew(Session $session): ?bool
    {
        if ($session->visitor === null || $session->views === 0) {
            return null;
        }
        $who = "{$session->site}\0{$session->visitor}";
        $last = $this->last[$who] ?? null;
        $this->last[$who] = $session->begin;

        return $last === null || $session->begin - $last > self::NEW_AFTER;
    }

    /** @param string $item that was bought; a session is of none */
    private function line(?Session $session, int $at, ?string $ad = null, string $item = ''): Line
    {
        $by = [];
        foreach ($this->by as $dimension) {
            $by[$dimension] = match ($dimension) {
                'day', 'week', 'month' => $this->ofDay($dimension, $this->days->day($at)),
                'ad' => $ad ?? $this->ads[$session->origin->click ?? ''] ?? '',
                'item' => $item,
                default => $session === null ? '' : $this->ofSession($session, $dimension),
            };
        }

        return $this->lineOf($by);
    }

    /** @param array<string, string> $by */
    private function lineOf(array $by): Line
    {
        return $this->lines[implode("\0", $by)] ??= new Line($by);
    }

    private function ofDay(string $dimension, string $day): string
    {
        return match ($dimension) {
            'week' => Days::week($day),
            'month' => Days::month($day),
            default => $day,
        };
    }

    private function ofSession(Session $session, string $dimension): string
    {
        return match ($dimension) {
            'channel' => $session->origin->channel,
            'platform' => $session->origin->platform ?? '',
            'site' => $session->site,
            'landing' => preg_split('/[?#]/', $session->landing)[0] ?? '',
            'visitor' => $this->standing[$session],
            default => $session->origin->keys[$dimension]
                ?? Query::first($session->landing)[self::SHORT[$dimension] ?? $dimension]
                ?? '',
        };
    }
}
