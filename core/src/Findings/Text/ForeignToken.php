<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Token;
use Vestigon\Core\Dialect\TokenKind;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;
use Vestigon\Core\Template\Element\Literal;
use Vestigon\Core\Template\Element\UnknownToken as UnknownPart;

/** foreign-token: the marks of another platform mean nothing here. */
final readonly class ForeignToken implements TextRule
{
    public function __construct(private ForeignTokens $foreign) {}

    public function check(Spot $spot): iterable
    {
        foreach ($spot->template->walk() as $part) {
            if ($part instanceof UnknownPart) {
                $whose = $this->foreign->named($part->source, $spot->dialect);
                if ($whose !== null) {
                    yield $this->found($spot, $part->offset, $part->source, ...$whose);
                }
            } elseif ($part instanceof Literal) {
                foreach ($this->foreign->in($part->source, $spot->dialect) as $at => [$typed, $dialect, $token]) {
                    yield $this->found($spot, $part->offset + $at, $typed, $dialect, $token);
                }
            }
        }
    }

    private function found(Spot $spot, int $at, string $typed, Dialect $whose, Token $token): Finding
    {
        $own =
            $token->kind === TokenKind::Landing
                ? $spot->dialect->rawLanding()
                : $spot->dialect->tokenFor($token->field, $spot->type);
        $own = $spot->fillsTokens() ? $own : null;
        $gives = $token->kind === TokenKind::Landing ? 'the landing URL' : $token->field;
        $here =
            $own === null
                ? "{$spot->dialect->title} has none for {$gives} here"
                : 'here it is '.$spot->dialect->written($own->name);

        return $spot->finding(
            'foreign-token',
            Severity::Error,
            "{$typed} is {$whose->title}'s token for {$gives}; {$here}.",
            $at,
            strlen($typed),
            fix: $own === null
                ? null
                : $spot->instead(
                    'write '.$spot->dialect->written($own->name),
                    $at,
                    strlen($typed),
                    $spot->dialect->written($own->name),
                ),
        );
    }
}
