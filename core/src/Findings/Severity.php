<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

/** How bad a finding is. */
enum Severity: string
{
    /** Clicks or data are lost. */
    case Error = 'error';
    /** Data is damaged or split. */
    case Warning = 'warning';
    case Note = 'note';

    /** 0 is the worst. */
    public function rank(): int
    {
        return match ($this) {
            self::Error => 0,
            self::Warning => 1,
            self::Note => 2,
        };
    }
}
