<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;
use Vestigon\Core\Url\Query;

/** personal-data: an e-mail address or a phone number in a URL ends up in logs and reports of third parties. */
final readonly class PersonalData implements TextRule
{
    /**
     * Common practice, not a full grammar: what people would take for an address or a number. RFC 5321 §4.5.3.1.1: at
     * most 64 characters before the @.
     */
    private const EMAIL = '~(?<![a-z0-9._%+\-])[a-z0-9._%+\-]{1,64}@[a-z0-9\-]+(?:\.[a-z0-9\-]+)*\.[a-z]{2,}~i';

    private const PHONE = '~(?<![\w.])(?:\+|00)\d{1,3}[ ()./\-]{0,4}(?:\d[ ()./\-]{0,4}){7,12}(?!\w)~';

    public function check(Spot $spot): iterable
    {
        foreach ($spot->slot === null ? [[0, $spot->text, null]] : $this->values($spot) as [$at, $text, $key]) {
            // a plus in a query is a space: a phone number's own is %2B, but people type it as it is
            foreach (['an e-mail address' => self::EMAIL, 'a phone number' => self::PHONE] as $what => $pattern) {
                if (
                    preg_match($pattern, rawurldecode($text)) === 1
                    || preg_match($pattern, Query::decoded($text)) === 1
                ) {
                    yield $spot->finding(
                        'personal-data',
                        Severity::Warning,
                        ($key === null ? 'The text' : $key)." holds what looks like {$what}.",
                        $at,
                        strlen($text),
                        key: $key,
                    );
                }
            }
        }
    }

    /** @return iterable<array{int, string, string|null}> */
    private function values(Spot $spot): iterable
    {
        foreach ($spot->parameters() as $pair) {
            if ($pair->value !== null) {
                yield [$pair->valueAt, $pair->value, $pair->keyFixed ? $pair->key : null];
            }
        }
    }
}
