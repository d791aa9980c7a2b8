<?php

declare(strict_types=1);

namespace Vestigon\Core\Link\Rule;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Personal;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Link\LinkRule;
use Vestigon\Core\Link\Sight;

/** personal-data: an e-mail address or a phone number in a URL ends up in logs and reports of third parties. */
final readonly class PersonalData implements LinkRule
{
    public function check(Sight $sight): iterable
    {
        foreach ($sight->read as $key => $values) {
            foreach (array_unique(array_merge(...array_map(Personal::in(...), $values))) as $what) {
                yield new Finding(
                    'personal-data',
                    Severity::Warning,
                    "{$key} holds what looks like {$what}.",
                    key: (string) $key,
                );
            }
        }
    }
}
