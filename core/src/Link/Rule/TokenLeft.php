<?php

declare(strict_types=1);

namespace Vestigon\Core\Link\Rule;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Link\LinkRule;
use Vestigon\Core\Link\Sight;

/** raw-token: nobody fills a token in a link that people place themselves; it arrives as it stands. */
final readonly class TokenLeft implements LinkRule
{
    private string $look;

    /** @param non-empty-list<Dialect> $dialects whose tokens are known by their marks */
    public function __construct(array $dialects)
    {
        $looks = [];
        foreach ($dialects as $dialect) {
            if ($dialect->syntax !== null) {
                $open = preg_quote($dialect->syntax->open, '~');
                $looks[] = $open.'[\w.:|-]+'.preg_quote($dialect->syntax->close, '~');
            }
        }
        $this->look = '~'.implode('|', array_unique($looks)).'~';
    }

    public function check(Sight $sight): iterable
    {
        foreach ($sight->link->pairs as $key => $value) {
            if (preg_match($this->look, $value, $found) === 1) {
                yield new Finding(
                    'raw-token',
                    Severity::Warning,
                    "Nobody fills {$found[0]} here: {$key} arrives with it as it stands.",
                    key: (string) $key,
                );
            }
        }
    }
}
