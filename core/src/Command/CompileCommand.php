<?php

declare(strict_types=1);

namespace Vestigon\Core\Command;

use Vestigon\Core\Account\AccountReader;
use Vestigon\Core\Compile\Advice;
use Vestigon\Core\Compile\Advisor;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Existing;
use Vestigon\Core\Compile\Policy;
use Vestigon\Core\Compile\Switches;
use Vestigon\Core\Compile\Unmet;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Naming\Patterns;
use Vestigon\Core\Plan\PlanReader;

/**
 * ./vestigon compile: {plan, dialect, account, existing?, switches?, naming?} in; the writes that bring the account in
 * line out.
 */
final class CompileCommand implements Command
{
    public const FORMAT = 'vestigon.writes/1';

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
        $plan = PlanReader::read($request->at('plan'));
        $policy = new Policy(
            $request->has('existing') ? $request->at('existing')->enum(Existing::class) : Existing::Replace,
            switches: $request->has('switches') ? $request->at('switches')->enum(Switches::class) : Switches::May,
        );
        $compiled = Compiler::compile($account, $plan, $policy);
        $listed = static fn (Unmet $u): array => ['node' => $u->node, 'key' => $u->key, 'reason' => $u->reason];

        return new Answer(
            [
                'format' => self::FORMAT,
                'writes' => array_map(static fn (Write $w): array => $w->toArray(), $compiled->writes),
                'unmet' => array_map($listed, $compiled->unmet),
                'kept' => array_map($listed, $compiled->kept),
                'overridden' => array_map(static fn (Write $w): array => $w->toArray(), $compiled->overridden),
                'advice' => array_map(
                    static fn (Advice $a): array => $a->toArray(),
                    Advisor::advice($account, $plan, $compiled, $policy),
                ),
            ],
            false,
        );
    }
}
