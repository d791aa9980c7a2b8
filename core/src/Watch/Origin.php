<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** Where a view came from. */
final readonly class Origin
{
    public const UNTOLD = ['source' => '(direct)', 'medium' => '(none)'];

    /**
     * @param array<string, string> $keys source, medium and what else the channel rules name, by their short names
     * @param array<string, string> $read the same as they stood in the URL
     * @param string|null $click the click ID
     * @param string|null $platform whose click ID it is
     * @param string $family of that platform; empty: none
     * @param list<string> $twice keys that stood in the URL more than once, by their short names
     */
    public function __construct(
        public array $keys,
        public How $how,
        public string $channel,
        public array $read,
        public ?string $click = null,
        public ?string $platform = null,
        public string $family = '',
        public array $twice = [],
    ) {}

    /** @param list<string> $twice */
    public function withTwice(array $twice): self
    {
        return $twice === [] ? $this : new self(
            $this->keys,
            $this->how,
            $this->channel,
            $this->read,
            $this->click,
            $this->platform,
            $this->family,
            $twice,
        );
    }

    /** Does the view say by itself where it came from? */
    public function isTracked(): bool
    {
        return $this->how === How::Keys || $this->how === How::ClickId;
    }

    /** Would one session have both, the other coming after this one? */
    public function goesOn(self $next): bool
    {
        return ! $next->isTracked()
            || ($this->click !== null && $this->click === $next->click)
            || ($this->click === $next->click && $this->read === $next->read);
    }
}
