<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Plan\Fields;
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
final class Alike
{
    private const MOST_KEPT = 20_000;

    /** @var list<string> fields of the ads whose form matters */
    private readonly array $byForm;

    /** @var list<string> fields of the ads whose very value matters */
    private readonly array $byValue;

    /** @var array<string, string> the fields as they are where an ad does not have them */
    private readonly array $blank;

    /** @var array<string, Verdict|list<string>> by form: proven, or the fields whose values decide */
    private array $byForms = [];

    /** @var array<string, Verdict> by form and the values that decide */
    private array $byValues = [];

    public function __construct(private readonly Prover $prover, private readonly Route $route, private readonly ?string $type)
    {
        $usage = array_fill_keys($prover->truth($type)->fields(), false);
        foreach ($route->usage() as $field => $matters) {
            $usage[$field] = $matters || ($usage[$field] ?? false);
        }
        $ofAds = array_filter($usage, static fn (string $f): bool => Fields::owner($f) !== null, ARRAY_FILTER_USE_KEY);
        $this->byForm = array_keys(array_filter($ofAds, static fn (bool $matters): bool => ! $matters));
        $this->byValue = array_keys(array_filter($ofAds));
        $this->blank = array_fill_keys(array_keys($ofAds), '');
    }

    /**
     * @param array<string, string> $sent what the platform knows of the ad, by field
     * @param array<string, string> $known what is true of it, by field
     */
    public function verdict(array $sent, array $known): Verdict
    {
        $forms = '';
        foreach ($this->byForm as $field) {
            $s = $sent[$field] ?? '';
            $k = $known[$field] ?? '';
            $form = Form::of($s);
            $forms .= $form->value.($form === Form::Bytes ? $s."\0" : '');
            if ($s !== $k) {
                $form = Form::of($k);
                $forms .= '/'.$form->value.($form === Form::Bytes ? $k."\0" : '');
            }
        }
        foreach ($this->byValue as $field) {
            $forms .= "\0".($sent[$field] ?? '')."\0".($known[$field] ?? '');
        }
        $found = $this->byForms[$forms] ?? $this->newForms($forms, $sent, $known);
        if ($found instanceof Verdict) {
            return $found;
        }
        foreach ($found as $field) {
            $forms .= "\0".($sent[$field] ?? '')."\0".($known[$field] ?? '');
        }
        if (isset($this->byValues[$forms])) {
            return $this->byValues[$forms];
        }
        [$sent, $known] = [$sent + $this->blank, $known + $this->blank];
        if (count($this->byValues) >= self::MOST_KEPT) {
            $this->byValues = [];
        }

        return $this->byValues[$forms] = $this->prover->verdictOf($this->route, $this->type, $sent, $known);
    }

    /**
     * @param array<string, string> $sent
     * @param array<string, string> $known
     * @return Verdict|list<string>
     */
    private function newForms(string $forms, array $sent, array $known): Verdict|array
    {
        $standing = $this->standIns($sent + $this->blank, $known + $this->blank);
        $decide = [];
        $watch = static function (Trace $trace) use (&$decide): void {
            $decide += array_flip(self::inPlacesOfMeaning($trace));
        };
        $verdict = $this->prover->verdictOf($this->route, $this->type, $standing[0], $standing[1], $watch);
        foreach ($verdict->counterexamples as $c) {
            $where = in_array($c->code, ['wrong-value', 'encoding-depth'], true) ? [] : [(string) $c->url];
            $decide += array_flip(Stand::in((string) $c->expected, ...$c->arrived, ...$where));
        }
        if (count($this->byForms) >= self::MOST_KEPT) {
            $this->byForms = [];
        }

        return $this->byForms[$forms] = $verdict->state === State::Proven && $decide === []
            ? $verdict
            : array_map(fn (int $i): string => $this->byForm[$i], array_keys($decide));
    }

    /**
     * @param array<string, string> $sent
     * @param array<string, string> $known
     * @return array{array<string, string>, array<string, string>}
     */
    private function standIns(array $sent, array $known): array
    {
        foreach ($this->byForm as $i => $field) {
            $s = $sent[$field] ?? '';
            $k = $known[$field] ?? '';
            $sent[$field] = Stand::for($i, Form::of($s), $s, published: $s !== $k);
            $known[$field] = Stand::for($i, Form::of($k), $k, published: false);
        }

        return [$sent, $known];
    }

    /** @return list<int> the fields whose values stand where they are more than a value: in an address, or in a key */
    private static function inPlacesOfMeaning(Trace $trace): array
    {
        $texts = array_map(static fn (array $pair): string => $pair[0], $trace->arrival);
        foreach ($trace->trail as [$url]) {
            $texts[] = substr($url, 0, strcspn($url, '?'));
            array_push($texts, ...array_map(static fn (array $pair): string => $pair[0], Query::read($url)));
        }

        return Stand::in(...$texts);
    }
}
