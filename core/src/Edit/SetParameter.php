<?php

declare(strict_types=1);

namespace Vestigon\Core\Edit;

use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Template\TemplateReader;

/** Gives a parameter one value in a text: in the place where it stands, or behind all others. */
final readonly class SetParameter implements Edit
{
    /** @param string $value as it is to stand in the text: tokens are tokens */
    public function __construct(private TemplateReader $reader, private string $key, private string $value)
    {
        if ($key === '' || strcspn($key, "&=?# \t\r\n") !== strlen($key)) {
            throw new UnusableInput('a key is wanted that has none of & = ? # and no space in it');
        }
        if (strpbrk($value, "&#\r\n") !== false) {
            throw new UnusableInput('the value has & or # in it; write %26 or %23');
        }
    }

    public function of(?SlotKind $kind, ?string $text): ?string
    {
        return match ($kind) {
            null => $text,
            SlotKind::Suffix => $this->reader
                ->read($text ?? '')
                ->query(true)
                ->with($this->key, $this->value),
            default => $text === null
                ? null
                : $this->reader->read($text)->query(false)->with($this->key, $this->value),
        };
    }
}
