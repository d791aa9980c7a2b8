<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Token;

/** The token catalogues of other platforms, to recognise their marks in a text. */
final readonly class ForeignTokens
{
    /** @var array<string, array{Dialect, Token}> by what stands in a text, marks and all */
    private array $known;

    /** A name between the marks of any of the platforms: letters, digits and . : _ - between two marks. */
    private string $pattern;

    /** @param list<Dialect> $dialects */
    public function __construct(array $dialects)
    {
        $known = $opens = $closes = [];
        foreach ($dialects as $dialect) {
            $syntax = $dialect->syntax;
            if ($syntax === null) {
                continue;
            }
            $opens[$syntax->open] = preg_quote($syntax->open, '~');
            $closes[$syntax->close] = preg_quote($syntax->close, '~');
            foreach ($dialect->tokens as $token) {
                $known[$syntax->folded($dialect->written($token->name))] ??= [$dialect, $token];
            }
        }
        $this->known = $known;
        $this->pattern =
            $known === []
                ? '~(?!)~'
                : '~(?:'
                    .implode('|', $opens)
                    .')[A-Za-z][A-Za-z0-9.:_-]{0,60}?(?:'
                    .implode('|', $closes)
                    .')~';
    }

    /**
     * Whose token is this?
     *
     * @param string $written with its marks
     * @return array{Dialect, Token}|null null: nobody's, or the platform's own
     */
    public function named(string $written, Dialect $here): ?array
    {
        $found = $this->known[$written] ?? ($this->known[strtolower($written)] ?? null);

        return $found === null || $found[0]->id === $here->id ? null : $found;
    }

    /**
     * Every token of other platforms in a stretch of literal text, longest first at each place.
     *
     * @return iterable<int, array{string, Dialect, Token}> offset → as typed, whose, which
     */
    public function in(string $literal, Dialect $here): iterable
    {
        preg_match_all($this->pattern, $literal, $found, PREG_OFFSET_CAPTURE | PREG_SET_ORDER);
        foreach ($found as $match) {
            $whose = $this->named($match[0][0], $here);
            if ($whose !== null) {
                yield $match[0][1] => [$match[0][0], ...$whose];
            }
        }
    }
}
