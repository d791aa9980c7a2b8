<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Dialect\Token;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;
use Vestigon\Core\Template\Element\UnknownToken as UnknownPart;

/** token-case: the platform tells capitals from small letters, and the token has the wrong ones. */
final readonly class TokenCase implements TextRule
{
    public function check(Spot $spot): iterable
    {
        $syntax = $spot->dialect->syntax;
        if ($syntax === null || ! $syntax->caseSensitive || ! $spot->fillsTokens()) {
            return;
        }
        $names = array_map(static fn (Token $t): string => $t->name, $spot->dialect->tokens);
        foreach ($spot->template->walk() as $part) {
            if (! ($part instanceof UnknownPart)) {
                continue;
            }
            $right = self::right(substr($part->source, strlen($syntax->open), -strlen($syntax->close)), $names);
            if ($right !== null) {
                $written = $spot->dialect->written($right);
                yield $spot->finding(
                    'token-case',
                    Severity::Error,
                    "{$spot->dialect->title} tells capitals from small letters: {$part->source} is not known, "
                        ."{$written} is.",
                    $part->offset,
                    strlen($part->source),
                    fix: $spot->instead("write {$written}", $part->offset, strlen($part->source), $written),
                );
            }
        }
    }

    /**
     * The name that differs in capitals only.
     *
     * @param list<string> $names
     */
    public static function right(string $typed, array $names): ?string
    {
        foreach ($names as $name) {
            if ($name !== $typed && strcasecmp($name, $typed) === 0) {
                return $name;
            }
        }

        return null;
    }
}
