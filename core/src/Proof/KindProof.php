<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Plan\Fields;
use Vestigon\Core\Plan\Lane;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Trace;
use Vestigon\Core\Url\Query;

/**
 * Ads with the same texts, proven together.
 *
 * Values stand in for the names, numbers and other facts of the ads, by their form. What is proven with those holds for
 * every value of the form: a text that passes a value on does so with each. What is not proven is decided anew for each
 * value of the fields that the fault is about.
 */
final class KindProof
{
    /** What matters of the ads. */
    public readonly Looks $looks;

    /** @var array<string, string> the fields as they are where an ad does not have them */
    private readonly array $blank;

    /**
     * @param string $texts all that the ads and what stands above them say
     * @param Route|null $today the ads as they are, where they are to be harmed in nothing
     */
    public function __construct(
        private readonly Prover $prover,
        private readonly Route $route,
        private readonly Lane $lane,
        private readonly bool $namesFreeze,
        private readonly string $texts,
        private readonly ?Route $today = null,
    ) {
        $usage = [];
        foreach ($today === null ? [$route] : [$route, $today] as $one) {
            foreach ($one->usage() as $field => $matters) {
                $usage[$field] = $matters || ($usage[$field] ?? false);
            }
        }
        foreach ($prover->truth($lane)->fields() as $field) {
            // what is wanted and never sent is there as a fixed text, for one value of what stands above
            $usage[$field] ??= Fields::owner($field) !== Role::Ad;
        }
        $ofAds = array_filter(
            $usage,
            static fn (string $f): bool => Fields::owner($f) !== null,
            ARRAY_FILTER_USE_KEY,
        );
        ksort($ofAds);
        $this->looks = new Looks(
            array_keys(array_filter($ofAds, static fn (bool $matters): bool => ! $matters)),
            array_keys(array_filter($ofAds)),
            $namesFreeze,
        );
        $this->blank = array_fill_keys(array_keys($ofAds), '');
    }

    /**
     * Decides for all ads that look like this one: the verdict, with what the ad really has, or which values decide.
     */
    public function ofLooks(Node $ad, Above $above): Verdict|Looks
    {
        $sent = $above->sentOf($ad) + $this->blank;
        $known = $above->knownOf($ad) + $this->blank;
        $stand = new StandIns(
            $this->prover->agreement,
            $this->texts,
            ...array_values($sent),
            ...array_values($known),
        );
        [$sentInstead, $knownInstead] = $this->standIns($stand, $sent, $known);
        $decide = [];
        $watch = static function (Trace $trace) use (&$decide, $stand): void {
            $decide += array_flip(self::inPlacesOfMeaning($stand, $trace));
        };
        $verdict = $this->verdict($sentInstead, $knownInstead, $watch);
        foreach ($verdict->counterexamples as $c) {
            $decide += array_flip($stand->in(...$this->decisive($c, $stand, $sent, $known)));
        }
        if ($decide !== []) {
            return new Looks(
                [],
                array_map(fn (int $i): string => $this->looks->byForm[$i], array_keys($decide)),
                $this->namesFreeze,
            );
        }

        return $verdict->state === State::Proven ? $verdict : $this->verdict($sent, $known);
    }

    /** Decides for ads with the very values of this one. */
    public function ofValues(Node $ad, Above $above): Verdict
    {
        return $this->verdict($above->sentOf($ad) + $this->blank, $above->knownOf($ad) + $this->blank);
    }

    /**
     * Where it matters which value stands: in whatever a fault of the whole click shows, in what a key should bring and
     * did.
     *
     * @param array<string, string> $sent
     * @param array<string, string> $known
     * @return list<string>
     */
    private function decisive(Counterexample $c, StandIns $stand, array $sent, array $known): array
    {
        if ($c->key !== '' && $c->arrived === []) {
            // nothing comes: whatever is wanted does not, unless a shape leaves nothing of it
            $fields = array_map(
                fn (int $i): string => $this->looks->byForm[$i],
                $stand->in((string) $c->expected),
            );
            $isPlain = static fn (string $value): bool => ValueForm::of($value) === ValueForm::Plain;
            $mayBeNothing = array_filter(
                $fields,
                static fn (string $f): bool => ! $isPlain($sent[$f] ?? '') || ! $isPlain($known[$f] ?? ''),
            );

            return $mayBeNothing === [] ? [] : [(string) $c->expected];
        }

        return [(string) $c->expected, ...$c->arrived, ...$c->key === '' ? [(string) $c->url] : []];
    }

    /**
     * @param array<string, string> $sent
     * @param array<string, string> $known
     * @param \Closure(Trace): void|null $watch
     */
    private function verdict(array $sent, array $known, ?\Closure $watch = null): Verdict
    {
        return $this->prover->verdictOf($this->route, $this->lane, $sent, $known, $watch, $this->today);
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
            $texts[] = substr($url, 0, Query::before($url, '?'));
            array_push($texts, ...array_map(static fn (array $pair): string => $pair[0], Query::read($url)));
        }

        return $stand->in(...$texts);
    }
}
