<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;

/** insecure-landing: a page opened over http loses its referrer and can be read and changed on the way. */
final readonly class InsecureLanding implements TextRule
{
    /** W3C Secure Contexts §3.1: localhost and its subdomains are trustworthy over http too. */
    private const TRUSTED = '~^http://(?:[^/?#@]*@)?(?:[^/?#:@]+\.)?'
        .'(?:localhost|127(?:\.\d+){3}|\[::1\])(?:[:/?#]|$)~i';

    public function check(Spot $spot): iterable
    {
        if (
            $spot->slot === SlotKind::Landing
            && stripos($spot->text, 'http://') === 0
            && preg_match(self::TRUSTED, $spot->text) !== 1
        ) {
            yield $spot->finding(
                'insecure-landing',
                Severity::Warning,
                'The landing URL is http, not https: what it carries can be read and lost on the way.',
                0,
                7,
                fix: $spot->instead('write https', 0, 7, 'https://'),
            );
        }
    }
}
