<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Document\Cursor;

/** A redirect that the click may pass: a click tracker's rules. */
final readonly class Hop
{
    /**
     * @param string $host without port, lower case
     * @param string $to the parameter that holds the destination
     * @param bool $appends all other parameters travel on to the destination
     * @param list<array{string, string}> $adds keys and texts that it adds itself
     */
    public function __construct(
        public string $host,
        public string $to,
        public bool $appends,
        public array $adds = [],
    ) {}

    public static function read(Cursor $c): self
    {
        $forwards = $c->at('forwards');
        if (! in_array($forwards->string(), ['append', 'none'], true)) {
            $forwards->fail('"append" or "none" is wanted');
        }

        return new self(
            strtolower($c->at('host')->string()),
            $c->at('to')->string(),
            $forwards->string() === 'append',
            array_map(
                static fn (Cursor $a): array => [$a->at('key')->string(), $a->at('text')->string()],
                $c->has('adds') ? $c->at('adds')->list() : [],
            ),
        );
    }
}
