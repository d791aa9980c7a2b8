<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Dialect\Token;
use Vestigon\Core\Findings\Fix;
use Vestigon\Core\Findings\Guess;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;
use Vestigon\Core\Template\Element\UnknownToken as UnknownPart;

/** unknown-token: marks around a name that the platform does not know. */
final readonly class UnknownToken implements TextRule
{
    public function __construct(private ForeignTokens $foreign) {}

    public function check(Spot $spot): iterable
    {
        $syntax = $spot->dialect->syntax;
        if ($syntax === null || ! $spot->fillsTokens()) {
            return;
        }
        foreach ($spot->template->walk() as $part) {
            if (
                ! ($part instanceof UnknownPart)
                || $this->foreign->named($part->source, $spot->dialect) !== null
            ) {
                continue;
            }
            $body = substr($part->source, strlen($syntax->open), -strlen($syntax->close));
            $names = array_map(static fn (Token $t): string => $t->name, $spot->dialect->tokens);
            if (TokenCase::right($body, $names) !== null) {
                continue; // that rule says more
            }
            $likely = Guess::nearest($body, $names);
            $isEncoded = $syntax->open === '%' && preg_match('/^[0-9a-f]{2}/i', $body) === 1;
            if ($isEncoded && $syntax->keepsUnknown && $likely === null) {
                continue; // RFC 3986 §2.1: a percent-encoded byte, and what stands between it and the next mark
            }
            $becomes = $syntax->keepsUnknown ? 'is sent as it stands' : 'gives nothing';
            yield $spot->finding(
                'unknown-token',
                Severity::Error,
                "{$spot->dialect->title} does not know {$part->source}, so it {$becomes}"
                    .($likely === null ? '.' : '; '.$spot->dialect->written($likely).' is meant, it seems.'),
                $part->offset,
                strlen($part->source),
                fix: $likely === null ? null : $this->fix($spot, $part, $likely),
            );
        }
    }

    private function fix(Spot $spot, UnknownPart $part, string $likely): Fix
    {
        return $spot->instead(
            'write '.$spot->dialect->written($likely),
            $part->offset,
            strlen($part->source),
            $spot->dialect->written($likely),
        );
    }
}
