<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Plan\Fields;
use Vestigon\Core\Template\Distinct;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Trace;
use Vestigon\Core\Url\Query;

/**
 * Ads with the same texts, proven together.
 *
 * Values stand in for the names, numbers and other facts of the ads, by their form. What is proven with those holds for every value of
 * the form: a text that passes a value on does so with each. What is not proven is decided anew for each value of the fields that the
 * fault is about.
 */
final class KindProof
{
    private readonly Looks $looks;

    /** @var array<string, string> the fields as they are where an ad does not have them */
    private readonly array $blank;

    /** @var array<string, SharedVerdict|Looks> by looks: proven, or what else decides */
    private array $byForms = [];

    /** @var array<string, SharedVerdict> by all that decides */
    private array $byValues = [];

    /**
     * @param string $texts all that the ads and what stands above them say
     * @param Route|null $today the ads as they are, where they are to be harmed in nothing
     */
    public function __construct(
        private readonly Prover $prover,
        private readonly Route $route,
        private readonly ?string $type,
        private readonly bool $namesFreeze,
        private readonly SharedVerdicts $shares,
        private readonly string $texts,
        private readonly ?Route $today = null,
    ) {
        $usage = array_fill_keys($prover->truth($type)->fields(), false);
        foreach ($today === null ? [$route] : [$route, $today] as $one) {
            foreach ($one->usage() as $field => $matters) {
                $usage[$field] = $matters || ($usage[$field] ?? false);
            }
        }
        $ofAds = array_filter($usage, static fn (string $f): bool => Fields::owner($f) !== null, ARRAY_FILTER_USE_KEY);
        ksort($ofAds);
        $this->looks = new Looks(array_keys(array_filter($ofAds, static fn (bool $matters): bool => ! $matters)), array_keys(array_filter($ofAds)), $namesFreeze);
        $this->blank = array_fill_keys(array_keys($ofAds), '');
    }

    public function share(Node $ad, Above $above): SharedVerdict
    {
        $looks = Distinct::of($above->forms($this->looks), $this->looks->ofAd($ad));
        $found = $this->byForms[$looks] ??= $this->newForms($ad, $above);
        if ($found instanceof SharedVerdict) {
            return $found;
        }
        $looks .= Distinct::of($above->forms($found), $found->ofAd($ad));

        return $this->byValues[$looks] ??= $this->shares->of($this->verdict($above->sentOf($ad), $above->knownOf($ad)), $ad);
    }

    /** Decides with values that stand in for the ad's own: proven, or the values of which fields decide. */
    private function newForms(Node $ad, Above $above): SharedVerdict|Looks
    {
        $sent = $above->sentOf($ad) + $this->blank;
        $known = $above->knownOf($ad) + $this->blank;
        $stand = new StandIns($this->prover->agreement, $this->texts, ...array_values($sent), ...array_values($known));
        [$sent, $known] = $this->standIns($stand, $sent, $known);
        $decide = [];
        $watch = static function (Trace $trace) use (&$decide, $stand): void {
            $decide += array_flip(self::inPlacesOfMeaning($stand, $trace));
        };
        $verdict = $this->verdict($sent, $known, $watch);
        foreach ($verdict->counterexamples as $c) {
            // a fault of the whole URL can be about anything in it; one of a key only about what the key should bring and did
            $whole = $c->key === '' ? [(string) $c->url] : [];
            $decide += array_flip($stand->in((string) $c->expected, ...$c->arrived, ...$whole));
        }

        return $verdict->state === State::Proven && $decide === []
            ? $this->shares->of($verdict, $ad)
            : new Looks([], array_map(fn (int $i): string => $this->looks->byForm[$i], array_keys($decide)), $this->namesFreeze);
    }

    /**
     * @param array<string, string> $sent
     * @param array<string, string> $known
     * @param \Closure(Trace): void|null $watch
     */
    private function verdict(array $sent, array $known, ?\Closure $watch = null): Verdict
    {
        return $this->prover->verdictOf($this->route, $this->type, $sent + $this->blank, $known + $this->blank, $watch, $this->today);
    }

    /**
     * @param array<string, string> $sent
     * @param array<string, string> $known
     * @return array{array<string, string>, array<string, string>}
     */
    private function standIns(StandIns $stand, array $sent, array $known): array
    {
        foreach ($this->looks->byForm as $i => $field) {
            $s = $sent[$field] ?? '';
            $k = $known[$field] ?? '';
            $sent[$field] = $stand->for($i, ValueForm::of($s), $s, published: $s !== $k);
            $known[$field] = $stand->for($i, ValueForm::of($k), $k, published: false);
        }

        return [$sent, $known];
    }

    /** @return list<int> the fields whose values stand where they are more than a value: in an address, or in a key */
    private static function inPlacesOfMeaning(StandIns $stand, Trace $trace): array
    {
        $texts = array_map(static fn (array $pair): string => $pair[0], $trace->arrival);
        foreach ($trace->trail as [$url]) {
            $texts[] = substr($url, 0, strcspn($url, '?'));
            array_push($texts, ...array_map(static fn (array $pair): string => $pair[0], Query::read($url)));
        }

        return $stand->in(...$texts);
    }
}
