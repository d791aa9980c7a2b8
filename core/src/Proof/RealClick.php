<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Path;
use Vestigon\Core\Findings\Flaw;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Settings;
use Vestigon\Core\Trace\Stop;
use Vestigon\Core\Trace\Trace;
use Vestigon\Core\Url\Query;

/** A click that was really made, held against the plan: what arrived, not what should have. */
final readonly class RealClick
{
    private TemplateReader $reader;

    private Prover $prover;

    /**
     * @param non-empty-list<string> $urls the click URL and where each redirect led
     * @param bool $landed did the last of them answer as a page?
     * @param array<string, string> $context the click's fields, as the platform had them
     * @param Path $ad as its texts are now
     * @param list<Hop> $hops
     */
    public function __construct(
        private array $urls,
        private bool $landed,
        private array $context,
        private Path $ad,
        private Plan $plan,
        private Settings $settings,
        private array $hops,
    ) {
        $this->reader = new TemplateReader($ad->dialect);
        $this->prover = new Prover($ad->dialect, $settings, $hops, $plan, $this->reader);
    }

    /** @return list<Flaw> what breaks the plan; empty: all is as agreed */
    public function faults(): array
    {
        $last = $this->urls[count($this->urls) - 1];
        $trail = array_map(
            fn (string $url, int $i): array => [
                $url,
                match (true) {
                    $i < count($this->urls) - 1 => Stop::Hop,
                    $this->landed => Stop::Landed,
                    default => Stop::Broken,
                },
            ],
            $this->urls,
            array_keys($this->urls),
        );
        $trace = new Trace(
            $this->urls[0],
            $this->urls[0],
            null,
            $trail,
            $this->landed ? $last : null,
            $this->landed ? Query::read($last) : [],
            [],
        );
        $dialect = $this->ad->dialect;
        $landing = Route::of($this->ad, $this->settings, $this->hops, $this->reader)->page(
            $this->context + $this->ad->fields($dialect->namesFreeze),
        );

        return (new Judge($dialect, $this->plan, $this->prover->truthOf($this->ad)))->faults(
            $trace,
            $this->context + $this->ad->fields(false),
            $landing,
        );
    }

    /** @return list<Flaw> the faults that the ad's own texts do not account for */
    public function surprises(): array
    {
        $known = $this->prover->verdict($this->ad)->faults();

        return array_values(
            array_filter($this->faults(), static fn (Flaw $f): bool => ! isset($known["{$f->code} {$f->key}"])),
        );
    }
}
