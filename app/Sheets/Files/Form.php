<?php

namespace App\Sheets\Files;

/** How a table stands in its file: what it takes to write another one like it. */
final readonly class Form
{
    /**
     * @param string $kind csv, xlsx or ods
     * @param string|null $delimiter of delimited text
     * @param string|null $encoding of text
     * @param string|null $note what was taken for granted
     */
    public function __construct(
        public string $kind,
        public ?string $delimiter = null,
        public ?string $encoding = null,
        public ?string $note = null,
    ) {}

    /** @return array{kind: string, delimiter: string|null, encoding: string|null, note: string|null} */
    public function toArray(): array
    {
        return [
            'kind' => $this->kind,
            'delimiter' => $this->delimiter,
            'encoding' => $this->encoding,
            'note' => $this->note,
        ];
    }
}
