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
    /**
     * @param non-empty-list<string> $urls the click URL and where each redirect led
     * @param bool $landed did the last of them answer as a page?
     * @param array<string, string> $context the click's fields, as the platform had them
     */
    public function __construct(private array $urls, private bool $landed, private array $context) {}

    /**
     * @param list<Hop> $hops
     * @return list<Flaw> what breaks the plan; empty: all is as agreed
     */
    public function faults(Path $ad, Plan $plan, Settings $settings, array $hops): array
    {
        $dialect = $ad->dialect;
        $last = $this->urls[count($this->urls) - 1];
        $trail = array_map(fn (string $url, int $i): array => [$url, match (true) {
            $i < count($this->urls) - 1 => Stop::Hop,
            $this->landed => Stop::Landed,
            default => Stop::Broken,
        }], $this->urls, array_keys($this->urls));
        $trace = new Trace($this->urls[0], $this->urls[0], null, $trail, $this->landed ? $last : null, $this->landed ? Query::read($last) : [], []);
        $prover = new Prover($dialect, $settings, $hops, $plan, $reader = new TemplateReader($dialect));
        $landing = Route::of($ad, $settings, $hops, $reader)->landing($this->context + $ad->fields($dialect->namesFreeze));

        return (new Judge($dialect, $plan, $prover->truth($ad->campaignType())))->faults($trace, $this->context + $ad->fields(false), $landing);
    }
}
