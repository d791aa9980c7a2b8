<?php

declare(strict_types=1);

namespace Vestigon\Core\Edit;

use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Document\UnusableInput;

/** Replaces words, as typed, or what a regular expression (PCRE2, Perl's) finds. What becomes empty is cleared. */
final readonly class FindAndReplace implements Edit
{
    /** Steps after which a pattern that does not come to an end is given up. */
    private const STEPS = 100_000;

    private function __construct(private string $pattern, private string $with, private bool $plain) {}

    public static function plain(string $find, string $with): self
    {
        return $find === ''
            ? throw new UnusableInput('what is to be found is missing')
            : new self($find, $with, true);
    }

    /**
     * @param string $pattern without delimiters
     * @param string $with `$1` gives the first group
     *
     * @throws UnusableInput it is no regular expression
     */
    public static function pattern(string $pattern, string $with): self
    {
        if ($pattern === '') {
            throw new UnusableInput('the pattern can’t be read: it is empty');
        }
        $delimited = "\x01{$pattern}\x01u"; // a delimiter that nobody types, so that no typed mark has to be escaped
        if (str_contains($pattern, "\x01")) {
            throw new UnusableInput('the pattern can’t be read: it holds a control character');
        }
        $why = null;
        set_error_handler(static function (int $level, string $message) use (&$why): bool {
            $why = preg_replace('/^preg_match\(\): /', '', $message);

            return true;
        });
        preg_match($delimited, '');
        restore_error_handler();
        if ($why !== null) {
            throw new UnusableInput("the pattern can’t be read: {$why}");
        }

        return new self($delimited, $with, false);
    }

    public function of(?SlotKind $kind, ?string $text): ?string
    {
        if ($text === null) {
            return null;
        }
        $after = $this->plain ? str_replace($this->pattern, $this->with, $text) : $this->replaced($text);

        return $after === '' ? null : $after;
    }

    private function replaced(string $text): string
    {
        $before = ini_set('pcre.backtrack_limit', (string) self::STEPS);
        try {
            return preg_replace($this->pattern, $this->with, $text)
                ?? throw new UnusableInput(
                    'the pattern does not come to an end with some texts: '.preg_last_error_msg(),
                );
        } finally {
            ini_set('pcre.backtrack_limit', (string) $before);
        }
    }
}
