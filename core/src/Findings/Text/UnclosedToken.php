<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;
use Vestigon\Core\Template\Element\Literal;
use Vestigon\Core\Template\Marks;

/** unclosed-token: an opening mark without its close stays as typed, and so does what stands behind it. */
final readonly class UnclosedToken implements TextRule
{
    public function check(Spot $spot): iterable
    {
        $syntax = $spot->dialect->syntax;
        if ($syntax === null || ! $spot->fillsTokens()) {
            return;
        }
        $pairs = Marks::pairs($spot->text, $syntax);
        foreach ($spot->template->walk() as $part) {
            if (! ($part instanceof Literal)) {
                continue;
            }
            for (
                $at = strpos($part->source, $syntax->open);
                $at !== false;
                $at = strpos($part->source, $syntax->open, $at + strlen($syntax->open))
            ) {
                $offset = $part->offset + $at;
                // RFC 3986 §2.1: a percent-encoded byte is no mark
                $isEncoded = preg_match('/\G%[0-9a-f]{2}/i', $part->source, offset: $at) === 1;
                if ($isEncoded || isset($pairs[$offset])) {
                    continue;
                }
                $name = $this->nameAt($spot, $offset + strlen($syntax->open));
                $end = $offset + strlen($syntax->open) + strlen($name);
                yield $spot->finding(
                    'unclosed-token',
                    Severity::Error,
                    $name === ''
                        ? "The mark {$syntax->open} is never closed, so it is sent as it stands."
                        : "{$syntax->open}{$name} has no closing {$syntax->close}, so it is sent as it stands and "
                            .'gives no value.',
                    $offset,
                    $end - $offset,
                    fix: $name === ''
                        ? null
                        : $spot->instead("close {$syntax->open}{$name}", $end, 0, $syntax->close),
                );
            }
        }
    }

    /** The longest name that the platform knows and that begins here; empty if none does. */
    private function nameAt(Spot $spot, int $from): string
    {
        $custom = $spot->dialect->customParameters;
        $found =
            $custom !== null
            && preg_match('~\G'.preg_quote($custom->prefix, '~').'\w+~i', $spot->text, $m, 0, $from) === 1
                ? $m[0]
                : '';
        foreach ($spot->dialect->tokens as $token) {
            $typed = substr($spot->text, $from, strlen($token->name));
            $same = $spot->dialect->syntax?->folded($typed) === $spot->dialect->syntax?->folded($token->name);
            if ($same && strlen($typed) > strlen($found)) {
                $found = $typed;
            }
        }

        return $found;
    }
}
