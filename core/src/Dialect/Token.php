<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

/** One entry of a platform's token catalogue. */
final readonly class Token
{
    /**
     * @param int|null $encode how often what it gives is percent-encoded; null is `auto`, landing tokens only
     * @param string $field the neutral field it gives or looks at; empty for landing tokens
     * @param array<string, string>|null $values the platform's spelling of each neutral value; others give nothing
     * @param list<string> $is conditional tokens: the values for which the text counts
     * @param list<string>|null $campaignTypes the only types where it works; null: all
     */
    public function __construct(
        public string $name,
        public TokenKind $kind,
        public ?int $encode,
        public string $field,
        public ?array $values,
        public array $is,
        public ?array $campaignTypes,
    ) {}

    public function worksFor(?string $campaignType): bool
    {
        return $this->campaignTypes === null
            || $campaignType === null
            || in_array($campaignType, $this->campaignTypes, true);
    }

    /** The platform's own spelling of a value; empty for a value it does not list. */
    public function spelled(string $value): string
    {
        return $this->values === null ? $value : $this->values[$value] ?? '';
    }
}
