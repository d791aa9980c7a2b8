<?php

declare(strict_types=1);

namespace Vestigon\Core\Template;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Syntax;
use Vestigon\Core\Dialect\TokenKind;
use Vestigon\Core\Template\Element\CatalogueToken;
use Vestigon\Core\Template\Element\Conditional;
use Vestigon\Core\Template\Element\CustomParameter;
use Vestigon\Core\Template\Element\Literal;
use Vestigon\Core\Template\Element\UnknownToken;

/** Reads slot texts by a platform's token syntax. Any bytes are a template; time grows with the length of the text. */
final class TemplateReader
{
    private const MOST_KEPT = 4096;

    private readonly int $longestName;

    /** @var array<string, Template> texts that were read before: many ads share few texts */
    private array $kept = [];

    public function __construct(private readonly Dialect $dialect)
    {
        $this->longestName = max([0, ...array_map(static fn ($t): int => strlen($t->name), $dialect->tokens)]);
    }

    public function read(string $text): Template
    {
        if (isset($this->kept[$text])) {
            return $this->kept[$text];
        }
        if (count($this->kept) >= self::MOST_KEPT) {
            $this->kept = [];
        }

        return $this->kept[$text] = $this->parsed($text);
    }

    private function parsed(string $text): Template
    {
        $syntax = $this->dialect->syntax;
        if ($syntax === null) {
            return Template::literal($text);
        }

        return $this->stretch($text, 0, strlen($text), Marks::pairs($text, $syntax), $syntax);
    }

    /** @param array<int, int> $pairs opening offset → closing offset */
    private function stretch(string $text, int $from, int $end, array $pairs, Syntax $syntax): Template
    {
        $parts = [];
        $literalFrom = $from;
        $at = $from;
        while (($open = strpos($text, $syntax->open, $at)) !== false && $open < $end) {
            $close = $pairs[$open] ?? null;
            $at = $open + strlen($syntax->open);
            if ($close === null || $close >= $end) {
                continue; // no close: the mark alone is literal
            }
            if ($open > $literalFrom) {
                $parts[] = new Literal($literalFrom, substr($text, $literalFrom, $open - $literalFrom));
            }
            $at = $close + strlen($syntax->close);
            $parts[] = $this->token($text, $open, $close, $pairs, $syntax);
            $literalFrom = $at;
        }
        if ($end > $literalFrom) {
            $parts[] = new Literal($literalFrom, substr($text, $literalFrom, $end - $literalFrom));
        }

        return new Template($parts);
    }

    /** @param array<int, int> $pairs */
    private function token(string $text, int $open, int $close, array $pairs, Syntax $syntax): Element
    {
        $bodyAt = $open + strlen($syntax->open);
        $length = $close - $bodyAt;

        $name = strcspn($text, ':', $bodyAt, min($length, $this->longestName + 1));
        if ($name < $length && $name <= $this->longestName) {
            $token = $this->dialect->token(substr($text, $bodyAt, $name));
            if ($token !== null && $token->kind === TokenKind::When && $text[$bodyAt + $name] === ':') {
                $from = $bodyAt + $name + 1;

                return new Conditional(
                    $open,
                    substr($text, $open, $from - $open),
                    $token,
                    $this->stretch($text, $from, $close, $pairs, $syntax),
                    $syntax->close,
                );
            }
        }
        $source = substr($text, $open, $close + strlen($syntax->close) - $open);
        if ($length <= $this->longestName) {
            $token = $this->dialect->token(substr($text, $bodyAt, $length));
            if ($token !== null && $token->kind !== TokenKind::When) {
                return new CatalogueToken($open, $source, $token);
            }
        }
        $prefix = $this->dialect->customParameters?->prefix;
        if (
            $prefix !== null
            && $length > strlen($prefix)
            && $syntax->folded(substr($text, $bodyAt, strlen($prefix))) === $syntax->folded($prefix)
        ) {
            return new CustomParameter(
                $open,
                $source,
                substr($text, $bodyAt + strlen($prefix), $length - strlen($prefix)),
            );
        }

        return new UnknownToken($open, $source);
    }
}
