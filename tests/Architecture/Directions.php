<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PHPat\Selector\Selector;
use PHPat\Test\Attributes\TestRule;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** One direction: app → core. The core knows nobody; the stand-ins and the application meet over HTTP only. */
final class Directions
{
    #[TestRule]
    public function core_knows_nobody(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Vestigon\Core'))
            ->excluding(Selector::inNamespace('Vestigon\Core\Tests'))
            ->canOnly()
            ->dependOn()
            ->classes(
                Selector::inNamespace('Vestigon\Core'),
                Selector::isStandardClass(),
                Selector::classname('Normalizer'),
                Selector::classname('JsonException'),
                Selector::inNamespace('Brick\Math'), // exact decimals
            )
            ->because('the computation must run and be tested by itself');
    }

    #[TestRule]
    public function redirector_lives_alone(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Vestigon\Redirector'))
            ->canOnly()
            ->dependOn()
            ->classes(
                Selector::inNamespace('Vestigon\Redirector'),
                Selector::classname('Vestigon\Core\Url\Query'),
                Selector::isStandardClass(),
            )
            ->because('short addresses lead on whatever the application does');
    }

    #[TestRule]
    public function collecting_needs_no_framework(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('App\Collecting'))
            ->canOnly()
            ->dependOn()
            ->classes(
                Selector::inNamespace('App\Collecting'),
                Selector::classname('App\Support\Statement'),
                Selector::classname('App\Support\Text'),
                Selector::inNamespace('Vestigon\Core'),
                Selector::classname('Symfony\Component\HttpFoundation\IpUtils'),
                Selector::isStandardClass(),
                Selector::classname('PDO'),
                Selector::classname('PDOException'),
            )
            ->because('what pages report is taken without the application’s start');
    }

    #[TestRule]
    public function standins_share_nothing(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Standins'))
            ->shouldNot()
            ->dependOn()
            ->classes(
                Selector::inNamespace('Vestigon'),
                Selector::inNamespace('App'),
                Selector::inNamespace('Illuminate'),
            )
            ->because('a mistake of ours must show when they compute the same');
    }

    #[TestRule]
    public function nobody_reaches_into_the_standins(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('App'))
            ->shouldNot()
            ->dependOn()
            ->classes(Selector::inNamespace('Standins'))
            ->because('outside services are known through connectors only');
    }

    #[TestRule]
    public function what_ships_needs_no_tests(): Rule
    {
        return PHPat::rule()
            ->classes(
                Selector::inNamespace('App'),
                Selector::AllOf(
                    Selector::inNamespace('Vestigon\Core'),
                    Selector::Not(Selector::inNamespace('Vestigon\Core\Tests')),
                ),
            )
            ->shouldNot()
            ->dependOn()
            ->classes(Selector::inNamespace('Tests'), Selector::inNamespace('Vestigon\Core\Tests'))
            ->because('tests and benches are for those who build it');
    }
}
