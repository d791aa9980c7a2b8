<?php

namespace App\Dialects;

use App\Support\DocumentText;
use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Errors\ValidationError;
use Opis\JsonSchema\Validator;
use Symfony\Component\Yaml\Yaml;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** A platform's document as people write it, JSON or YAML, and what is wrong with it and where. */
final readonly class DialectText
{
    /**
     * @param array<string, mixed>|null $document null if the text is neither JSON nor YAML
     * @param list<array{place: string, message: string}> $problems empty: it can be used
     */
    private function __construct(public ?array $document, public array $problems) {}

    public static function read(string $text): self
    {
        try {
            $document = DocumentText::read($text);
        } catch (UnusableInput $e) {
            [$place, $message] = explode(': ', $e->getMessage(), 2) + [1 => ''];

            return new self(null, [['place' => $place, 'message' => ucfirst($message)]]);
        }

        return new self($document, self::problems($document));
    }

    /**
     * @param array<string, mixed> $document
     * @return list<array{place: string, message: string}>
     */
    public static function problems(array $document): array
    {
        try {
            DialectReader::read(new Cursor($document));

            return [];
        } catch (UnusableInput $e) {
            [$place, $message] = explode(': ', $e->getMessage(), 2) + [1 => ''];

            return self::against($document) ?: [['place' => $place, 'message' => ucfirst($message).'.']];
        }
    }

    /**
     * All that the published schema says is wrong; the reader stops at the first.
     *
     * @param array<string, mixed> $document
     * @return list<array{place: string, message: string}>
     */
    private static function against(array $document): array
    {
        $validator = new Validator(max_errors: 30);
        $schema = (string) file_get_contents(base_path('docs/formats/schemas/dialect.schema.json'));
        $error = $validator
            ->validate(json_decode((string) json_encode($document, JSON_INVALID_UTF8_SUBSTITUTE)), $schema)
            ->error();
        if ($error === null) {
            return [];
        }
        $formatter = new ErrorFormatter();
        $flat = $formatter->formatFlat(
            $error,
            static fn (ValidationError $e): array => [
                'place' => self::place($e->data()->fullPath()),
                'message' => self::words($formatter->formatErrorMessage($e), $e),
            ],
        );
        $leaves = array_values(array_filter($flat, static fn (array $p): bool => $p['message'] !== ''));

        return array_slice(array_values(array_unique($leaves, SORT_REGULAR)), 0, 30);
    }

    /** @param array<string, mixed> $document */
    public static function write(array $document, string $as): string
    {
        return $as === 'yaml'
            ? Yaml::dump($document, 2, 2, Yaml::DUMP_EMPTY_ARRAY_AS_SEQUENCE | Yaml::DUMP_NULL_AS_TILDE)
            : json_encode(
                $document,
                JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR,
            )."\n";
    }

    /** @param list<string|int> $path */
    private static function place(array $path): string
    {
        return ltrim(
            implode('', array_map(static fn (string|int $p): string => is_int($p) ? "[{$p}]" : ".{$p}", $path)),
            '.',
        );
    }

    /** Errors that only gather others say nothing by themselves. */
    private static function words(string $message, ValidationError $error): string
    {
        return match ($error->keyword()) {
            'properties',
            'items',
            'additionalProperties',
            '$ref',
            'anyOf',
            'allOf',
            'then',
            'oneOf' => $error->subErrors() === [] ? ucfirst($message).'.' : '',
            'enum' => 'One of '
                .implode(
                    ', ',
                    array_map(
                        strval(...),
                        array_filter((array) ($error->schema()->info()->data()->enum ?? []), is_scalar(...)),
                    ),
                )
                .' is wanted.',
            'const' => '"'
                .(is_scalar($c = $error->schema()->info()->data()->const ?? '') ? $c : '')
                .'" is wanted.',
            'pattern' => ucfirst(
                (string) ($error->schema()->info()->data()->description ?? 'Another form is wanted'),
            ).'.',
            'required' => 'Missing: '.implode(', ', (array) ($error->args()['missing'] ?? [])).'.',
            default => ucfirst($message).'.',
        };
    }
}
