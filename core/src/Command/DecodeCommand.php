<?php

declare(strict_types=1);

namespace Vestigon\Core\Command;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\AccountReader;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Decode\Decoder;
use Vestigon\Core\Decode\Fit;
use Vestigon\Core\Decode\History;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Inspector;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Plan\Parameter;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Segment;
use Vestigon\Core\Url\Query;
use Vestigon\Core\Watch\Instant;

/** ./vestigon decode: landing URLs in; of each, which ads of some accounts can have made it, and what it tells, out. */
final class DecodeCommand implements Command
{
    private readonly RuleBook $rules;

    /** @param array<string, Dialect> $shipped by id */
    public function __construct(private readonly array $shipped)
    {
        $this->rules = RuleBook::all(array_values($shipped), ChannelsReader::shipped());
    }

    /** @throws UnusableInput */
    public function answer(Cursor $request): Answer
    {
        $accounts = array_map($this->account(...), $request->at('accounts')->list());
        $keys = $request->has('plan') ? self::keys($request->at('plan')) : [];
        $clicks = $request->has('clicks') ? $request->at('clicks')->stringMap() : [];
        $answers = [];
        foreach ($request->at('urls')->list() as $c) {
            $url = $c->at('url')->string();
            $at = $c->has('at') ? Instant::read($c->at('at')->string()) : null;
            if ($c->has('at') && $at === null) {
                $c->at('at')->fail('an instant with its offset is wanted, like 2026-10-05T09:00:00.000Z');
            }
            $found = [];
            foreach ($accounts as [$account, $decoder]) {
                array_push($found, ...$this->found($url, $at, $account, $decoder, $keys, $clicks));
            }
            usort($found, static fn (array $a, array $b): int => self::rank($a) <=> self::rank($b));
            $answers[] = ['url' => $url, 'found' => $found];
        }

        return new Answer(['urls' => $answers], false);
    }

    /** @return array{Account, Decoder} */
    private function account(Cursor $c): array
    {
        $dialect = DialectReader::given($c->at('dialect'), fn (string $id): ?Dialect => $this->shipped[$id] ?? null);
        $account = AccountReader::read($c, $dialect);

        $history = $c->has('texts') ? History::read($account, $c->at('texts')) : new History($account);

        return [$account, new Decoder($history)];
    }

    /** @return list<string> of a plan: those that carry an ad's number and nothing else */
    private static function keys(Cursor $plan): array
    {
        $keys = array_filter(
            PlanReader::read($plan)->parameters,
            static fn (Parameter $p): bool => count($p->parts) === 1 && $p->parts[0]->field === 'ad.id',
        );

        return array_map(static fn (Parameter $p): string => $p->key, array_values($keys));
    }

    /**
     * @param list<string> $keys
     * @param array<string, string> $clicks
     * @return list<array<string, mixed>>
     */
    private function found(
        string $url,
        ?int $at,
        Account $account,
        Decoder $decoder,
        array $keys,
        array $clicks,
    ): array {
        $named = [];
        foreach (Query::read($url) as [$key, $value]) {
            if ($key === $account->dialect->clickId?->parameter && isset($clicks[$value])) {
                $named[$clicks[$value]] = 'click-id';
            } elseif (in_array($key, $keys, true) && $value !== '') {
                $named[$value] ??= 'key';
            }
        }
        $named = array_intersect_key($named, $account->nodes);
        $found = [];
        foreach ($decoder->fits($url, $at) as $fit) {
            $ad = $fit->version->ad;
            $found[] = $this->whole($fit, $named[$ad] ?? 'fit', $account);
            unset($named[$ad]);
        }
        foreach ($named as $ad => $by) {
            $found[] = [
                'platform' => $account->dialect->id,
                'node' => (string) $ad,
                'by' => $by,
                'fit' => 'part',
                'since' => null,
                'until' => null,
                'values' => (object) [],
                'segments' => [],
                'findings' => [],
            ];
        }

        return $found;
    }

    /** @return array<string, mixed> */
    private function whole(Fit $fit, string $by, Account $account): array
    {
        $version = $fit->version;
        $findings = (new Inspector($this->rules, new TemplateReader($account->dialect)))->path(
            $version->path(),
            $account->settings,
            $account->hops,
        );

        return [
            'platform' => $account->dialect->id,
            'node' => $version->ad,
            'by' => $by,
            'fit' => 'whole',
            'since' => $version->since === null ? null : Instant::text($version->since),
            'until' => $version->until === null ? null : Instant::text($version->until),
            'values' => (object) $fit->values,
            'segments' => array_map(static fn (Segment $s): array => $s->toArray(), $fit->trace->segments),
            'findings' => array_map(static fn (Finding $f): array => $f->toArray(), Inspector::sorted($findings)),
        ];
    }

    /**
     * @param array<string, mixed> $found
     * @return array{int, int}
     */
    private static function rank(array $found): array
    {
        return [
            $found['fit'] === 'whole' ? 0 : 1,
            (int) array_search($found['by'], ['click-id', 'key', 'fit'], true),
        ];
    }
}
