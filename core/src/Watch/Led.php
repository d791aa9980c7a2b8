<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** The sessions that may have led to conversions: those that say where they came from, for as long as they count. */
final class Led
{
    /** After so many a look is taken at which are too old. */
    private const SWEEP = 50_000;

    /** @var array<string, list<Session>> by site and visitor */
    private array $visitors = [];

    /** @var array<string, list<Session>> by click ID */
    private array $clicks = [];

    private int $added = 0;

    /** @param array<string, string> $ads of clicks that platforms know, by click ID */
    public function __construct(private readonly Attribution $attribution, private readonly array $ads = []) {}

    /** A session has begun. */
    public function began(Session $session): void
    {
        if (! $session->isTracked()) {
            return;
        }
        if ($session->visitor !== null) {
            $this->visitors["{$session->site}\0{$session->visitor}"][] = $session;
        }
        if ($session->origin->click !== null) {
            $this->clicks[$session->origin->click][] = $session;
        }
        if (++$this->added % self::SWEEP === 0) {
            $begin = $this->attribution->since($session->begin);
            $this->visitors = self::since($this->visitors, $begin);
            $this->clicks = self::since($this->clicks, $begin);
        }
    }

    /** @param Session $in the session that the conversion is in */
    public function conversion(Event $event, Session $in): Conversion
    {
        $value = $event->value ?? 0;
        if ($event->click !== null) {
            $candidates = $this->within($this->clicks[$event->click] ?? [], $event);
            if ($candidates === [] && isset($this->ads[$event->click])) {
                return new Conversion(
                    $event,
                    [new Share(null, $this->ads[$event->click], Share::WHOLE, $value)],
                );
            }
        } else {
            $candidates = $this->within($this->visitors["{$event->site}\0{$event->visitor}"] ?? [], $event);
        }
        $chosen = $candidates === [] ? [$in] : $this->attribution->chosen($candidates);
        $values = Attribution::split($value, count($chosen));
        $parts = Attribution::split(Share::WHOLE, count($chosen));

        return new Conversion(
            $event,
            array_map(
                static fn (Session $s, int $i): Share => new Share($s, null, $parts[$i], $values[$i]),
                $chosen,
                array_keys($chosen),
            ),
        );
    }

    /**
     * @param list<Session> $sessions
     * @return list<Session>
     */
    private function within(array $sessions, Event $conversion): array
    {
        $since = $this->attribution->since($conversion->at);

        return array_values(array_filter($sessions, static fn (Session $s): bool => $s->begin >= $since));
    }

    /**
     * @param array<string, list<Session>> $all
     * @return array<string, list<Session>>
     */
    private static function since(array $all, int $begin): array
    {
        $left = array_map(
            static fn (array $sessions): array => array_values(
                array_filter($sessions, static fn (Session $s): bool => $s->begin >= $begin),
            ),
            $all,
        );

        return array_filter($left, static fn (array $sessions): bool => $sessions !== []);
    }
}
