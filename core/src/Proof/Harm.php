<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Findings\Click;
use Vestigon\Core\Findings\Flaw;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Trace\Stop;
use Vestigon\Core\Trace\Trace;
use Vestigon\Core\Url\Address;
use Vestigon\Core\Url\Query;

/**
 * What one click loses that is not the plan's to change.
 *
 * Whatever arrives today and is not the plan's arrives after, with the same values; nothing comes anew that was not in
 * the URL; a key that can't be given does not arrive, arrives empty, or as it did. What is spoilt today (a question
 * mark too many swallowed the next pair) may arrive unspoilt.
 */
final readonly class Harm
{
    public const CODE = 'harm';

    /** A value that has one of these may have swallowed the pairs behind it. */
    private const MARKS = '?&#=';

    /** @param string|null $clickIdKey the click ID that the plan wants: it may come where it does not yet */
    public function __construct(
        private Truth $truth,
        private bool $keepsKeys,
        private ?string $clickIdKey = null,
    ) {}

    /**
     * @param string|null $page where the landing URL alone leads
     * @param list<Flaw> $faults what is wrong with the click by the plan
     * @return iterable<Flaw>
     */
    public function of(Trace $was, Trace $now, ?string $page, array $faults): iterable
    {
        if ($was->landed === null) {
            return; // nothing arrives today
        }
        if ($now->landed === null) {
            yield self::flaw('The click lands today, and would not any more.');

            return;
        }
        if (
            self::address($was->landed) === self::address((string) $page)
            && self::address($now->landed) !== self::address((string) $page)
        ) {
            yield self::flaw('The click lands on the page today, and would land elsewhere.');
        }
        $hops = self::hops($was);
        if ($hops !== [] && array_diff($hops, self::hops($now)) !== []) {
            yield self::flaw('The click passes '.implode(' and ', $hops).' today, and would not any more.');
        }
        $before = self::byKey($was->arrival);
        $sent = null;
        $after = self::byKey($now->arrival);
        $own = self::byKey($page === null ? [] : Query::read($page));
        $ours = array_fill_keys([...array_keys($this->truth->choices), ...array_keys($this->truth->unmet)], true);
        if ($this->keepsKeys) {
            $ours = array_diff_key($ours, $before);
        }
        foreach (array_diff_key($before + $after, $ours) as $key => $ignored) {
            $key = (string) $key;
            if ($key === $this->clickIdKey && ! isset($before[$key])) {
                continue;
            }
            if (
                ($before[$key] ?? []) !== ($after[$key] ?? [])
                && ! self::stays(
                    $before[$key] ?? [],
                    ($sent ??= self::byKey(Query::sent($was->landed)))[$key] ?? [],
                    $after[$key] ?? [],
                    $own[$key] ?? null,
                )
                && ! (! isset($before[$key]) && self::stood($key, $was, $page))
            ) {
                yield self::flaw(
                    "{$key} arrives today as "
                        .self::told($before[$key] ?? [])
                        .', and would arrive as '
                        .self::told($after[$key] ?? [])
                        .'.',
                    $key,
                    $before[$key][0] ?? null,
                    $after[$key] ?? [],
                );
            }
        }
        foreach (
            array_diff_key(
                self::behindFragment($was, $page),
                $ours,
                $before,
                $after,
                self::behindFragment($now, $page),
            ) as $key => $ignored
        ) {
            yield self::flaw(
                "{$key} is sent behind # today, and would not be sent at all any more.",
                (string) $key,
            );
        }
        $wrong =
            array_fill_keys(array_map(static fn (Flaw $f): string => (string) $f->key, $faults), true)
            + $this->truth->unmet;
        foreach (array_intersect_key($after, $ours, $wrong) as $key => $values) {
            if ($values !== [''] && $values !== ($before[$key] ?? [])) {
                yield self::flaw(
                    "{$key} would arrive wrong in another way than today: ".self::told($values).'.',
                    (string) $key,
                    $this->truth->unmet[$key] ?? null,
                    $values,
                );
            }
        }
    }

    /**
     * @param list<string> $before
     * @param list<string> $sent the same as it stands in the URL
     * @param list<string> $after
     * @param list<string>|null $own what the page's own address says
     */
    private static function stays(array $before, array $sent, array $after, ?array $own): bool
    {
        if ($own !== null && $after === $own && self::givesWayTo($own, $before, $sent)) {
            return true;
        }
        if (count($before) !== count($after)) {
            return false;
        }
        foreach ($before as $i => $value) {
            if ($value !== $after[$i] && ($after[$i] === '' || ! self::isSpoilt($value, $sent[$i], $after[$i]))) {
                return false;
            }
        }

        return true;
    }

    /**
     * What the page's own address says may arrive again; but what is put in its place today, or beside it, is not lost.
     *
     * @param list<string> $own
     * @param list<string> $before
     * @param list<string> $sent
     */
    private static function givesWayTo(array $own, array $before, array $sent): bool
    {
        return count($before) === 1
            ? self::isSpoilt($before[0], $sent[0], $own[0])
            : array_filter(
                array_intersect_key($sent, array_diff($before, $own)),
                static fn (string $value): bool => strpbrk($value, self::MARKS) === false,
            ) === [];
    }

    /** Has a value swallowed what stood behind it? A mark that was encoded is the value's own. */
    private static function isSpoilt(string $value, string $sent, string $unspoilt): bool
    {
        return $value !== $unspoilt
            && str_starts_with($value, $unspoilt)
            && strpbrk(substr($value, strlen($unspoilt)), self::MARKS) !== false
            && strpbrk($sent, self::MARKS) !== false;
    }

    /** @return array<string, true> keys of parameters that a text has put behind the page's `#` */
    private static function behindFragment(Trace $trace, ?string $page): array
    {
        $fragment = substr((string) $trace->landed, Query::end((string) $trace->landed));
        if ($fragment === '' || $fragment === substr((string) $page, Query::end((string) $page))) {
            return [];
        }
        $keys = [];
        foreach (preg_split('/[?&#]/', $fragment) ?: [] as $piece) {
            if (strpos($piece, '=') > 0 && ! str_contains((string) $page, $piece)) {
                $keys[Query::decoded(substr($piece, 0, (int) strpos($piece, '=')))] = true;
            }
        }

        return $keys;
    }

    /** @return list<string> the hosts of the redirects that a click passes, be it in the background */
    private static function hops(Trace $trace): array
    {
        $hosts = $trace->backgroundUrl === null ? [] : [Address::host($trace->backgroundUrl)];
        foreach ($trace->trail as [$url, $stop]) {
            if ($stop === Stop::Hop) {
                $hosts[] = Address::host($url);
            }
        }

        return array_values(array_unique($hosts));
    }

    private static function address(string $url): string
    {
        return substr($url, 0, strcspn($url, '?#'));
    }

    /**
     * Did a pair with this key stand somewhere in the URL today, where the page could not read it? A key that is the
     * landing URL itself, be that a tracker's link, differs with what is added to it; it is known by its address.
     */
    private static function stood(string $key, Trace $was, ?string $page): bool
    {
        $urls = [(string) $was->clickUrl, ...array_column($was->trail, 0)];
        $isPage =
            self::address($key) !== ''
            && in_array(self::address($key), array_map(self::address(...), [(string) $page, ...$urls]), true);
        // a key without a value; or none before the mark
        $alone = $key === '' ? '~[?&]=~' : '~[?&]'.preg_quote($key, '~').'(?:[&#]|$)~D';
        foreach ($urls as $url) {
            for ($i = 0; $i < 3; $i++) {
                if (
                    $isPage
                        ? substr_count($url, self::address($key)) > 1
                        : ($key !== '' && str_contains($url, "{$key}=")) || preg_match($alone, $url) === 1
                ) {
                    return true;
                }
                $url = urldecode($url);
            }
        }

        return false;
    }

    /**
     * @param list<array{string, string}> $pairs
     * @return array<string, list<string>>
     */
    private static function byKey(array $pairs): array
    {
        $values = [];
        foreach ($pairs as [$key, $value]) {
            $values[$key][] = $value;
        }

        return $values;
    }

    /** @param list<string> $values */
    private static function told(array $values): string
    {
        return $values === [] ? 'nothing' : implode(' and ', array_map(Click::quoted(...), $values));
    }

    /** @param list<string> $arrived */
    private static function flaw(
        string $reason,
        ?string $key = null,
        ?string $expected = null,
        array $arrived = [],
    ): Flaw {
        return new Flaw(self::CODE, Severity::Error, true, $reason, $key, $expected, $arrived);
    }
}
