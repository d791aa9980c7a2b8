<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** What of a conversion counts for a session, or for an ad whose click never arrived. */
final readonly class Share
{
    /** A whole conversion, in the units that are shared out. */
    public const WHOLE = 1_000_000;

    /**
     * @param Session|null $session null: none is known
     * @param int $part of the conversion, in millionths
     * @param int $value in minor units
     */
    public function __construct(
        public ?Session $session,
        public ?string $ad,
        public int $part,
        public int $value,
    ) {}

    /** @return array{session: int|null, ad?: string, value: int} */
    public function toArray(): array
    {
        return [
            'session' => $this->session?->number,
            ...$this->ad === null ? [] : ['ad' => $this->ad],
            'value' => $this->value,
        ];
    }
}
