<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** Tells how far long work is: what is being done, and how many ads are through with it. */
final class Progress
{
    private int $done = 0;

    private string $step = '';

    /**
     * @param \Closure(string, int): void|null $tell told the step and the ads that are through with it: at each step's
     *     beginning, and now and then in it; null: nobody listens
     * @param positive-int $every so many ads
     */
    public function __construct(private readonly ?\Closure $tell = null, public readonly int $every = 2000) {}

    public function step(string $step): void
    {
        $this->step = $step;
        $this->done = 0;
        $this->tell?->__invoke($step, 0);
    }

    /** So many ads are through since the last were; where all of an account pass, a call less for each. */
    public function passed(int $ads): void
    {
        $this->done += $ads;
        $this->tell?->__invoke($this->step, $this->done);
    }

    /** One ad is through. */
    public function ad(): void
    {
        if (++$this->done % $this->every === 0) {
            $this->tell?->__invoke($this->step, $this->done);
        }
    }
}
