<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** A client's choice of what conversions count for. */
final readonly class Attribution
{
    private const DAY = 86_400_000;

    /** @param int $days from 1 to 400: how long after a session a conversion may still count for it */
    public function __construct(public Model $model = Model::Last, public int $days = 30) {}

    /** @throws UnusableInput */
    public static function read(Cursor $c): self
    {
        $days = $c->has('days') ? $c->at('days')->int() : 30;
        if ($days < 1 || $days > 400) {
            $c->at('days')->fail('a number from 1 to 400 is wanted');
        }

        return new self($c->has('model') ? $c->at('model')->enum(Model::class) : Model::Last, $days);
    }

    /** The first instant at which a session may have begun. */
    public function since(int $conversion): int
    {
        return $conversion - $this->days * self::DAY;
    }

    /**
     * @template T
     *
     * @param non-empty-list<T> $candidates sessions, as they began
     * @return non-empty-list<T>
     */
    public function chosen(array $candidates): array
    {
        return match ($this->model) {
            Model::Last => [$candidates[count($candidates) - 1]],
            Model::First => [$candidates[0]],
            Model::Even => $candidates,
        };
    }

    /**
     * A whole number in equal parts; what is left over is one more for each of the last. What is negative is split as
     * if it weren't.
     *
     * @return list<int>
     */
    public static function split(int $value, int $parts): array
    {
        $each = intdiv(abs($value), $parts);
        $left = abs($value) % $parts;
        $sign = $value < 0 ? -1 : 1;

        return array_map(
            static fn (int $i): int => $sign * ($each + (int) ($i >= $parts - $left)),
            range(0, $parts - 1),
        );
    }
}
