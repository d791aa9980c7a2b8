<?php

namespace App\Links;

use Vestigon\Core\Link\Link;

/** A link as somebody wishes for it. */
final readonly class Wanted
{
    /**
     * @param string|null $code the word of its short address; empty: one is drawn; null: it has no short address
     * @param string $host of its short address; empty: this installation's own
     */
    public function __construct(
        public Link $link,
        public string $title = '',
        public ?string $code = null,
        public string $host = '',
    ) {}

    /** @param array<string, mixed> $row as LinksRequest takes it */
    public static function of(array $row): self
    {
        $pairs = [];
        foreach ($row['pairs'] ?? [] as $key => $value) {
            $pairs[(string) $key] = trim((string) $value);
        }

        return new self(
            new Link(trim((string) ($row['landing'] ?? '')), $pairs),
            trim((string) ($row['title'] ?? '')),
            match (true) {
                isset($row['code']) => strtolower(trim((string) $row['code'])),
                (bool) ($row['short'] ?? false) => '',
                default => null,
            },
            (string) ($row['host'] ?? ''),
        );
    }
}
