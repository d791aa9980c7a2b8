<?php

declare(strict_types=1);

namespace Vestigon\Core\Learn;

/**
 * One place of a platform's document that would have to say something else.
 *
 * @phpstan-type DialectDocument array{
 *     tokens: list<array{name: string, kind: string, field?: string, encode?: int|string, values?: mixed}>,
 *     assembly: array{mendsQuestionMark: bool, mendsFragment: bool, suffixJoins: string, space: string},
 *     clickId?: array{parameter: string, switch: string, default: bool}|null,
 *     ...
 * }
 */
final readonly class RuleChange
{
    /**
     * @param list<string|int> $path in the document
     * @param mixed $from what stands there; null: nothing
     * @param string $says what that means for a click, in words
     */
    public function __construct(public array $path, public mixed $from, public mixed $to, public string $says) {}

    /**
     * @param DialectDocument $document
     * @return DialectDocument the document with it
     */
    public function in(array $document): array
    {
        /** @var DialectDocument */
        return self::put($document, $this->path, $this->to);
    }

    /**
     * @param array<mixed> $in
     * @param list<string|int> $path
     * @return array<mixed>
     */
    private static function put(array $in, array $path, mixed $to): array
    {
        $step = array_shift($path);
        $inner = $step === null ? null : $in[$step] ?? null;
        $in[$step ?? ''] = $path === [] ? $to : self::put(is_array($inner) ? $inner : [], $path, $to);

        return $in;
    }

    public function place(): string
    {
        return implode('.', $this->path);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['path' => $this->path, 'from' => $this->from, 'to' => $this->to, 'says' => $this->says];
    }
}
