<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Trace\Trace;
use Vestigon\Core\Url\Query;

/** Holds one arrival against the truth of its click. */
final readonly class Judge
{
    /** @param list<string> $planKeys */
    private function __construct(private array $planKeys, private Truth $truth, private ?string $clickIdKey, private ?string $landing) {}

    /** @param string|null $landing the ad's own landing URL, as far as the click must leave it alone */
    public static function by(Plan $plan, Truth $truth, ?string $clickIdKey, ?string $landing): self
    {
        return new self($plan->keys(), $truth, $plan->clickIdRequired ? $clickIdKey : null, $landing);
    }

    /**
     * @param array<string, string> $context
     * @param array<string, string> $fields
     * @return list<Counterexample>
     */
    public function faults(Trace $trace, array $context, array $fields): array
    {
        $fault = static fn (Fault $f, string $key, ?string $expected, array $arrived, string $reason): Counterexample => new Counterexample(
            $f, $key, $context, $trace->clickUrl, $expected, array_map(strval(...), array_values(array_filter($arrived, is_string(...)))), $reason,
        );
        if ($trace->clickUrl === null) {
            return [$fault(Fault::NoLanding, '', null, [], 'The ad has no landing URL, so there is nothing to open.')];
        }
        if ($trace->landed === null) {
            return [$fault(Fault::BrokenTrail, '', null, [], 'The click does not reach the landing page: '.$this->trailEnd($trace))];
        }
        $arrived = [];
        foreach ($trace->arrival as [$key, $value]) {
            $arrived[$key][] = $value;
        }
        $faults = [];
        foreach ($this->truth->values($fields) as $key => $expected) {
            $came = $arrived[$key] ?? [];
            if ($came !== [$expected]) {
                $faults[] = match (true) {
                    $came === [] => $fault(Fault::Missing, $key, $expected, [], "{$key} does not arrive."),
                    count($came) > 1 => $fault(Fault::Twice, $key, $expected, $came, "{$key} arrives ".count($came).' times: '.implode(' and ', array_map(self::quoted(...), $came)).'.'),
                    default => $fault(Fault::Wrong, $key, $expected, $came, "{$key} arrives as ".self::quoted($came[0]).'; the plan says '.self::quoted($expected).'.'),
                };
            }
        }
        foreach (array_intersect_key($this->truth->unmet, array_flip($this->truth->required)) as $key => $reason) {
            $faults[] = $fault(Fault::Unmet, $key, null, $arrived[$key] ?? [], "{$key} is required, but {$reason}.");
        }
        $id = $context['click.id'] ?? '';
        if ($this->clickIdKey !== null && ($arrived[$this->clickIdKey] ?? []) !== [$id]) {
            $faults[] = $fault(Fault::ClickIdLost, $this->clickIdKey, $id, $arrived[$this->clickIdKey] ?? [], "The click ID {$this->clickIdKey} does not arrive as it was sent.");
        }
        if (($reason = $this->distortion($trace->landed, $trace->arrival)) !== null) {
            $faults[] = $fault(Fault::LandingDistorted, '', $this->landing, [$trace->landed], $reason);
        }

        return $faults;
    }

    /** @param list<array{string, string}> $arrival */
    private function distortion(string $landed, array $arrival): ?string
    {
        if ($this->landing === null) {
            return null;
        }
        $page = static fn (string $url): string => substr($url, 0, strcspn($url, '?#'));
        $fragment = static fn (string $url): string => substr($url, Query::end($url));
        if ($page($landed) !== $page($this->landing)) {
            return 'The click lands on another page than the ad says.';
        }
        if ($fragment($landed) !== $fragment($this->landing)) {
            return 'The landing page\'s fragment is changed: '.self::quoted($fragment($landed)).'. What stands behind # never reaches the page\'s server.';
        }
        foreach (Query::read($this->landing) as $own) {
            if (! in_array($own[0], $this->planKeys, true) && ! in_array($own, $arrival, true)) {
                return "The landing page's own parameter {$own[0]} does not arrive as it is.";
            }
        }

        return null;
    }

    private function trailEnd(Trace $trace): string
    {
        [$url, $stop] = $trace->trail[count($trace->trail) - 1] ?? ['', null];

        return "it ends {$stop?->value} at ".self::quoted($url).'.';
    }

    private static function quoted(string $text): string
    {
        return $text === '' ? 'nothing' : '“'.(mb_strlen($text) > 80 ? mb_substr($text, 0, 79).'…' : $text).'”';
    }
}
