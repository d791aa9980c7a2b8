<?php

namespace App\Feeds\Files;

use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Feed\Form;

/** NDJSON: an object of JSON (RFC 8259) a line. */
final readonly class LinesFile implements ItemsFile
{
    private const DEPTH = 64;

    public function __construct(private string $path) {}

    public function form(): Form
    {
        return Form::Ndjson;
    }

    public function ending(): string
    {
        return 'ndjson';
    }

    public function pieces(): iterable
    {
        $in = fopen($this->path, 'rb') ?: throw new \RuntimeException("{$this->path} can't be read");
        try {
            for ($row = 1; ($line = fgets($in, self::LONGEST)) !== false; $row++) {
                if (trim($line) === '') {
                    yield new Between($line);

                    continue;
                }
                $read = json_decode($line, true, self::DEPTH, JSON_BIGINT_AS_STRING);
                if (! is_array($read) || ($read !== [] && array_is_list($read))) {
                    throw new UnusableInput("line {$row} is no object of JSON");
                }
                yield new LinesPiece($line, $read);
            }
        } finally {
            fclose($in);
        }
    }
}
