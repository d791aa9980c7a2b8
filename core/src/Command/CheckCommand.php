<?php

declare(strict_types=1);

namespace Vestigon\Core\Command;

use Vestigon\Core\Account\AccountReader;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Naming\Patterns;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Proof\Broken;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Proof\Tally;

/** ./vestigon check: {dialect, account, plan?} in; findings, and proven or counterexamples, out. */
final class CheckCommand implements Command
{
    public const FORMAT = 'vestigon.findings/1';

    /** @param array<string, Dialect> $shipped by id */
    public function __construct(private readonly array $shipped) {}

    /** @throws UnusableInput */
    public function answer(Cursor $request): Answer
    {
        $dialect = DialectReader::given(
            $request->at('dialect'),
            fn (string $id): ?Dialect => $this->shipped[$id] ?? null,
        );
        $names = $request->has('naming') ? Patterns::read($request->at('naming')) : new Patterns();
        $account = $names->in(AccountReader::read($request->at('account'), $dialect));
        $plan = $request->has('plan') ? PlanReader::read($request->at('plan')) : null;
        $rules = RuleBook::all(
            [...array_values($this->shipped), ...isset($this->shipped[$dialect->id]) ? [] : [$dialect]],
            ChannelsReader::shipped(),
            $names,
        );
        $survey = new Survey($account, $plan, $rules);
        $ads = $dialect->levelOf(Role::Ad)?->id;
        foreach ($account->nodes as $key => $node) {
            if ($node->level === $ads) {
                $survey->ad($node, $account->parents[$key]);
            }
        }
        $findings = [];
        if ($plan !== null) {
            foreach ($rules->plans as $rule) {
                array_push(
                    $findings,
                    ...array_map(static fn (Finding $f): Tally => new Tally($f, 1), [...$rule->check($plan)]),
                );
            }
        }
        array_push($findings, ...$survey->findings());
        $broken = $survey->counterexamples();
        $bad =
            $broken !== []
            || array_filter($findings, static fn (Tally $t): bool => $t->finding->severity === Severity::Error)
                !== [];

        return new Answer(
            [
                'format' => self::FORMAT,
                'findings' => array_map(static fn (Tally $t): array => $t->toArray(), $findings),
                ...$plan === null
                    ? []
                    : [
                        'proven' => $broken === [],
                        'states' => (object) $survey->states(),
                        'counterexamples' => array_map(static fn (Broken $b): array => $b->toArray(), $broken),
                    ],
            ],
            $bad,
        );
    }
}
