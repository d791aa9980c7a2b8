<?php

declare(strict_types=1);

namespace Vestigon\Core\Edit;

use Vestigon\Core\Compile\Redirect;
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
        $after = $this->reader
            ->read($text)
            ->query($kind === SlotKind::Suffix)
            ->without([$this->key]);
        $after = $kind === SlotKind::Suffix ? $after : Redirect::without($after, [$this->key]);

        return trim($after, '?&') === '' ? null : $after;
    }
}
