<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** Reads events. There may be millions: plain ones are read without detours. */
final class EventReader
{
    /** @throws UnusableInput with the place of the first thing that is wrong */
    public static function read(Cursor $c): Event
    {
        return self::plain($c->value) ?? self::closely($c);
    }

    /**
     * @param string $line of JSON
     * @throws UnusableInput
     */
    public static function line(string $line, string $place): Event
    {
        return self::plain(json_decode($line, true)) ?? self::closely(Cursor::json($line, $place));
    }

    /** Null: it has more to it than texts, or something is wrong. */
    private static function plain(mixed $e): ?Event
    {
        if (
            ! is_array($e)
            || isset($e['value'])
            || isset($e['currency'])
            || isset($e['items'])
            || isset($e['name'])
            || isset($e['test'])
            || isset($e['inApp'])
        ) {
            return null;
        }
        $id = $e['id'] ?? '';
        $site = $e['site'] ?? '';
        $at = $e['at'] ?? '';
        $kind = $e['kind'] ?? '';
        $url = $e['url'] ?? '';
        $referrer = $e['referrer'] ?? '';
        $visitor = $e['visitor'] ?? '';
        $order = $e['order'] ?? '';
        $click = $e['click'] ?? '';

        return is_string($id)
            && $id !== ''
            && is_string($site)
            && $site !== ''
            && is_string($at)
            && ($ms = Instant::read($at)) !== null
            && ($kind === 'view' || $kind === 'convert')
            && is_string($url)
            && is_string($referrer)
            && is_string($visitor)
            && is_string($order)
            && is_string($click)
            ? new Event(
                $id,
                $site,
                $ms,
                $kind === 'view' ? EventKind::View : EventKind::Convert,
                $url,
                $referrer,
                $visitor === '' ? null : $visitor,
                $order === '' ? null : $order,
                $click === '' ? null : $click,
            )
            : null;
    }

    private static function closely(Cursor $c): Event
    {
        $e = $c->object();
        $id = self::text($c, $e, 'id') ?? $c->at('id')->fail('at least one character is wanted');
        $site = self::text($c, $e, 'site') ?? $c->at('site')->fail('at least one character is wanted');
        $at = Instant::read(self::text($c, $e, 'at') ?? '')
            ?? $c->at('at')->fail('an instant with its offset is wanted, like 2026-10-05T09:00:00.000Z');
        $value = isset($e['value']) ? $c->at('value')->int() : null;

        return new Event(
            $id,
            $site,
            $at,
            EventKind::tryFrom(self::text($c, $e, 'kind') ?? '') ?? $c->at('kind')->enum(EventKind::class),
            self::text($c, $e, 'url') ?? $c->at('url')->string(),
            self::text($c, $e, 'referrer') ?? '',
            self::text($c, $e, 'visitor'),
            self::text($c, $e, 'order'),
            self::text($c, $e, 'click'),
            $value,
            isset($e['currency']) || $value !== null ? self::currency($c->at('currency')) : null,
            self::text($c, $e, 'name'),
            isset($e['items']) ? array_map(self::item(...), $c->at('items')->list()) : [],
            isset($e['test']) && $c->at('test')->bool(),
            isset($e['inApp']) && $c->at('inApp')->bool(),
        );
    }

    /**
     * What is empty is not given.
     *
     * @param array<string, mixed> $event
     */
    private static function text(Cursor $c, array $event, string $key): ?string
    {
        $text = $event[$key] ?? '';

        return $text === '' ? null : (is_string($text) ? $text : $c->at($key)->text());
    }

    private static function currency(Cursor $c): string
    {
        return is_string($c->value) && preg_match('/^[A-Z]{3}$/D', $c->value) === 1
            ? $c->value
            : $c->fail('the currency of the value is wanted, as three capital letters (ISO 4217)');
    }

    private static function item(Cursor $c): Item
    {
        return new Item(
            $c->at('id')->text(),
            $c->has('name') ? $c->at('name')->string() : null,
            $c->at('quantity')->atLeast(1),
            $c->at('value')->int(),
        );
    }
}
