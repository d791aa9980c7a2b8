<?php

declare(strict_types=1);

namespace Vestigon\Core\Edit;

use Vestigon\Core\Compile\Chunks;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Template\TemplateReader;

/** Takes a parameter out of a text, wherever it stands; all others stay as they are. */
final readonly class RemoveParameter implements Edit
{
    public function __construct(private TemplateReader $reader, private string $key) {}

    public function of(?SlotKind $kind, ?string $text): ?string
    {
        if ($text === null || $kind === null) {
            return $text;
        }
        $after = Chunks::of($this->reader->read($text))->without([$this->key], $kind === SlotKind::Suffix);

        return trim($after, '?&') === '' ? null : $after;
    }
}
