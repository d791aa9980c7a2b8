<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Findings\Personal;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;

/** personal-data: an e-mail address or a phone number in a URL ends up in logs and reports of third parties. */
final readonly class PersonalData implements TextRule
{
    public function check(Spot $spot): iterable
    {
        foreach ($spot->slot === null ? [[0, $spot->text, null]] : $this->values($spot) as [$at, $text, $key]) {
            foreach (Personal::in($text) as $what) {
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
