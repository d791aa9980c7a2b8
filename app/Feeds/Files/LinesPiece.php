<?php

namespace App\Feeds\Files;

/** A line of NDJSON. */
final readonly class LinesPiece implements Piece
{
    private const FLAGS = JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE;

    /** A member of the line's object (RFC 8259), which is known to be well-formed. */
    private const MEMBER =
        '~\G(?<before>\s*[{,]\s*(?<key>"(?:[^"\\\\]|\\\\.)*+")\s*:\s*)'
        .'(?<value>"(?:[^"\\\\]|\\\\.)*+"|[^"{}\[\],\s]++'
        .'|(?<nest>[{\[](?:[^{}\[\]"]++|"(?:[^"\\\\]|\\\\.)*+"|(?&nest))*+[}\]]))~s';

    /** @param array<string, mixed> $read */
    public function __construct(private string $line, private array $read) {}

    public function raw(): string
    {
        return $this->line;
    }

    public function cells(): array
    {
        $cells = [];
        foreach ($this->read as $column => $value) {
            if (is_scalar($value)) {
                $cells[(string) $column] = is_bool($value) ? ($value ? 'true' : 'false') : (string) $value;
            }
        }

        return $cells;
    }

    public function with(array $links): string
    {
        $line = (string) preg_replace_callback(
            self::MEMBER,
            static function (array $member) use ($links): string {
                $link = $links[json_decode($member['key'])] ?? null;

                return $member['before'].($link === null ? $member['value'] : json_encode($link, self::FLAGS));
            },
            $this->line,
        );

        return preg_last_error() === PREG_NO_ERROR
            ? $line
            : throw new \RuntimeException('a line of JSON could not be gone through: '.preg_last_error_msg());
    }
}
