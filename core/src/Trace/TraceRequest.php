<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Account\NodeReader;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Naming\Patterns;

/**
 * A trace request document: an ad's path, a click context, the account's settings, the known hops, and how names are
 * made.
 */
final readonly class TraceRequest
{
    /**
     * @param array<string, string> $context
     * @param list<Hop> $hops
     */
    private function __construct(
        public Path $path,
        public array $context,
        public Settings $settings,
        public array $hops,
        public Patterns $names,
    ) {}

    /**
     * @param \Closure(string): ?Dialect $shipped gives a shipped dialect by its id
     *
     * @throws UnusableInput
     */
    public static function read(Cursor $c, \Closure $shipped): self
    {
        $dialect = DialectReader::given($c->at('dialect'), $shipped);

        $names = $c->has('naming') ? Patterns::read($c->at('naming')) : new Patterns();

        return new self(
            $names->on(NodeReader::path($c->at('path'), $dialect)),
            $c->has('context') ? $c->at('context')->stringMap() : [],
            $c->has('settings') ? Settings::read($c->at('settings')) : new Settings(),
            $c->has('hops') ? array_map(Hop::read(...), $c->at('hops')->list()) : [],
            $names,
        );
    }

    public function trace(): Trace
    {
        return Route::once($this->path, $this->context, $this->settings, $this->hops);
    }
}
