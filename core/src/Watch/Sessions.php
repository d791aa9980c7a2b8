<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** Puts events together to sessions. They come in order; what is over is handed out and forgotten. */
final class Sessions
{
    private int $number = 0;

    /** @var array<string, Session> the last of each visitor, by site and visitor */
    private array $open = [];

    /** @var array<int, Session> what was not handed out, by number */
    private array $waiting = [];

    private int $told = 0;

    private int $looked = 0;

    /**
     * @param \Closure(Event): Origin $origin of a view
     * @param Origin $none of what has no view
     */
    public function __construct(private readonly \Closure $origin, private readonly Origin $none) {}

    /** The session that an event is in. */
    public function of(Event $event): Session
    {
        $origin = $event->isView() ? ($this->origin)($event) : null;
        $who = $event->visitor === null ? null : "{$event->site}\0{$event->visitor}";
        $session = $who === null ? null : $this->open[$who] ?? null;
        if ($session === null || ! $session->takes($event, $origin)) {
            $session = new Session($this->number++, $event, $origin ?? $this->none);
            $this->waiting[$session->number] = $session;
            if ($who !== null) {
                if (isset($this->open[$who])) {
                    $this->open[$who]->isFollowed = true;
                }
                $this->open[$who] = $session;
            }
        }
        $session->add($event, $origin);
        if ($event->at - $this->looked > Session::BREAK) {
            $this->looked = $event->at;
            $this->open = array_filter(
                $this->open,
                static fn (Session $s): bool => $event->at - $s->end <= Session::BREAK,
            );
        }

        return $session;
    }

    /**
     * The next that no event from an instant on can be in, as they began; one that goes on holds back those after it.
     */
    public function overBefore(int $at): ?Session
    {
        $session = $this->waiting[$this->told] ?? null;
        if ($session === null || ! self::isOver($session, $at)) {
            return null;
        }
        unset($this->waiting[$this->told++]);

        return $session;
    }

    private static function isOver(Session $session, int $at): bool
    {
        return $session->visitor === null || $session->isFollowed || $at - $session->end > Session::BREAK;
    }
}
