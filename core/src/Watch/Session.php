<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** A session as it grows: what one visitor does on one site without a long break, coming from one place. */
final class Session
{
    /** Longer breaks end a session, in milliseconds (common practice, no source). */
    public const BREAK = 30 * 60_000;

    public int $views = 0;

    public int $end;

    /** Where it began to be seen; empty without a view. */
    public string $landing = '';

    /** The visitor has begun another. */
    public bool $isFollowed = false;

    /** @var list<string> the ids of its events; none are kept once it is told */
    public array $events = [];

    public readonly string $site;

    public readonly ?string $visitor;

    public readonly int $begin;

    /**
     * @param int $number sessions are numbered as they begin, from 0
     * @param Origin $origin of its first view
     */
    public function __construct(public readonly int $number, Event $first, public Origin $origin)
    {
        $this->site = $first->site;
        $this->visitor = $first->visitor;
        $this->begin = $this->end = $first->at;
    }

    /** @param Origin|null $origin null: it is no view */
    public function add(Event $event, ?Origin $origin): void
    {
        if ($origin !== null && $this->views++ === 0) {
            $this->origin = $origin;
            $this->landing = $event->url;
        }
        $this->end = $event->at;
        $this->events[] = $event->id;
    }

    /**
     * Is the event one of this session?
     *
     * @param Origin|null $origin null: it is no view
     */
    public function takes(Event $event, ?Origin $origin): bool
    {
        return $event->at - $this->end <= self::BREAK
            && ($origin === null || ($this->views === 0 ? ! $origin->isTracked() : $this->origin->goesOn($origin)));
    }

    /** Did it begin with a view that says where it came from? */
    public function isTracked(): bool
    {
        return $this->views > 0 && $this->origin->isTracked();
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'site' => $this->site,
            'visitor' => $this->visitor,
            'begin' => Instant::text($this->begin),
            'end' => Instant::text($this->end),
            'views' => $this->views,
            'origin' => $this->origin->keys,
            'how' => $this->origin->how->value,
            'channel' => $this->origin->channel,
            'events' => $this->events,
        ];
    }
}
