<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/**
 * Decides what is written above the parts of an account and works the parts out, again as long as ads turn up in them
 * that speak against it. Where something would be lost even then, nothing is decided above them.
 */
abstract class Deciding
{
    private const MOST = 3;

    /** What is decided on the ads that are known. */
    abstract protected function decided(): Decided;

    /** Works all parts out after what has been decided. */
    abstract protected function work(Decided $decided): Objections;

    /**
     * @param list<string> $ads on which it is to be decided too
     * @return bool was any of them not known?
     */
    abstract protected function learn(array $ads): bool;

    /** @return Decided after which the parts have been worked out last */
    public function settle(): Decided
    {
        $decided = $this->decided();
        $objections = $this->work($decided);
        for ($turn = 1; $turn < self::MOST && $this->learn($objections->ads); $turn++) {
            $now = $this->decided();
            if ($now->is($decided)) {
                break;
            }
            [$decided, $objections] = [$now, $this->work($now)];
        }
        if ($objections->loses) {
            $decided = new Decided();
            $this->work($decided);
        }

        return $decided;
    }
}
