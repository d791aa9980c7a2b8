<?php

declare(strict_types=1);

namespace Vestigon\Core\Link\Rule;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Link\LinkRule;
use Vestigon\Core\Link\Sight;

/** too-long: beyond some 2,000 characters programs cut addresses off (common practice, no source). */
final readonly class TooLong implements LinkRule
{
    public const MOST = 2000;

    public function check(Sight $sight): iterable
    {
        $long = strlen($sight->url) > self::MOST ? mb_strlen($sight->url, 'UTF-8') : 0;
        if ($long > self::MOST) {
            yield new Finding(
                'too-long',
                Severity::Error,
                'The link has '.number_format($long).' characters; '.number_format(self::MOST).' are the most.',
            );
        }
    }
}
