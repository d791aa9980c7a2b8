<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

/** What is wrong with one key of an arrival. */
enum Fault: string
{
    case Missing = 'missing-key';
    case Wrong = 'wrong-value';
    case Twice = 'duplicate-key';
    case ClickIdLost = 'click-id-lost';
    case LandingDistorted = 'landing-distorted';
    case BrokenTrail = 'broken-trail';
    case NoLanding = 'no-landing';
    case Unmet = 'unmet';
}
