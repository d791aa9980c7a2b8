<?php

declare(strict_types=1);

namespace Vestigon\Core\Learn;

use Vestigon\Core\Dialect\TokenKind;

/**
 * Reads a platform's list of placeholders as people paste it: a table out of its help, or the help's text itself.
 *
 * The marks around names are those that most names have; then each name is looked for between them, and what stands
 * behind it, up to the next one, is what is said of it. Nothing is settled by it: a person confirms.
 */
final readonly class Placeholders
{
    public const MOST = 500;

    /** Longer text than this is not looked at. */
    public const LONGEST = 200_000;

    private const NAME = '[A-Za-z][A-Za-z0-9_.-]{0,47}';

    /** Marks that words have in any text. */
    private const PUNCTUATION = ['(', '"', "'", '“', '‘', '<', '</', '.', ',', ':', ';', '-', '–', '/', '*', '**', '`'];

    /**
     * @param list<Placeholder> $items
     * @param string $open empty: no marks were found
     */
    private function __construct(public array $items, public string $open, public string $close, public bool $isSure) {}

    public static function in(string $text): self
    {
        $text = substr($text, 0, self::LONGEST);
        [$open, $close, $times] = self::marks($text);
        $items = [];
        $words = new HelpWords();
        foreach ($open === '' ? self::named($text) : self::told($text, $open, $close) as $name => [$says, $isWhen]) {
            $items[] = self::read((string) $name, $says, $isWhen, $words);
            if (count($items) === self::MOST) {
                break;
            }
        }

        return new self($items, $open, $close, $times > 2);
    }

    /** @return array{string, string, int} the marks that most names stand between, and how many do */
    private static function marks(string $text): array
    {
        $pattern = '/(?<![^\s|,;("“`])([^\w\s]{1,3})('.self::NAME.')(?::[^\n]*?)??([^\w\s]{1,3})(?![\w])/u';
        preg_match_all($pattern, $text, $m, PREG_SET_ORDER);
        $counts = [];
        foreach ($m as [, $before, $name, $after]) {
            [$open, $close] = self::pair($before, $after);
            if ($open !== '' && ! in_array($open, self::PUNCTUATION, true)) {
                $counts["{$open} {$close}"][$name] = true;
            }
        }
        $counts = array_map(count(...), $counts);
        arsort($counts);
        $best = (string) array_key_first($counts);

        [$open, $close] = explode(' ', $best) + [1 => ''];

        return [$open, $close, $counts[$best] ?? 0];
    }

    /**
     * What stands before and behind a name, without punctuation of the sentence around it.
     *
     * @return array{string, string}
     */
    private static function pair(string $before, string $after): array
    {
        foreach (array_unique([$before, ltrim($before, '"\'`(“‘')]) as $open) {
            $mirrored = strtr(strrev($open), ['{' => '}', '[' => ']', '(' => ')', '<' => '>']);
            foreach ([$mirrored, strrev($open)] as $close) {
                if ($close !== '' && str_starts_with($after, $close)) {
                    return [$open, $close];
                }
            }
        }
        if (in_array($before, ['${', '#{', '@{'], true) && str_starts_with($after, '}')) {
            return [$before, '}'];
        }

        return ['', ''];
    }

    /** @return array<string, array{string, bool}> name → what is said of it, does it hold a text of its own? */
    private static function told(string $text, string $open, string $close): array
    {
        $end = preg_quote($close, '/');
        $pattern = '/'.preg_quote($open, '/').'('.self::NAME.")((?!{$end}):(?:(?!{$end}).)*)?{$end}/s";
        preg_match_all($pattern, $text, $m, PREG_SET_ORDER | PREG_OFFSET_CAPTURE);
        $told = [];
        foreach ($m as $i => $match) {
            $from = $match[0][1] + strlen($match[0][0]);
            $says = substr($text, $from, ($m[$i + 1][0][1] ?? strlen($text)) - $from);
            $says = self::plain((string) strtok($says, "\n"));
            [$name, $isWhen] = self::name($match[1][0], $match[2][0] ?? '');
            if (! isset($told[$name]) || strlen($told[$name][0]) < strlen($says)) {
                $told[$name] = [$says, $isWhen];
            }
        }

        return $told;
    }

    /**
     * `campaign:name` is a name, `if-phone:text` holds a text of its own.
     *
     * @return array{string, bool} the name; does it hold a text?
     */
    private static function name(string $name, string $rest): array
    {
        $holds =
            preg_match('/(^|[-_.])(if|only|when|not|unless)([-_.]|$)/i', $name) === 1
            || preg_match('/^:[\w.-]+$/', $rest) !== 1
            || preg_match('/^:(your-?)?(text|value)$/i', $rest) === 1;

        return match (true) {
            $rest === '' => [$name, false],
            $holds => [$name, true],
            default => [$name.$rest, false],
        };
    }

    /** @return array<string, array{string, bool}> of a table whose names have no marks */
    private static function named(string $text): array
    {
        $told = [];
        foreach (preg_split('/\R/', $text) ?: [] as $line) {
            $cells = preg_split('/\t|\s*[|;]\s*|\s{2,}|\s[–-]\s/', trim($line, " |\t"), 2) ?: [];
            if (count($cells) === 2 && preg_match('/^'.self::NAME.'$/', $cells[0]) === 1) {
                $told[$cells[0]] ??= [self::plain($cells[1]), false];
            }
        }

        return $told;
    }

    private static function plain(string $says): string
    {
        $says = (string) preg_replace('/\s+/', ' ', strtr($says, ["\t" => ' ', '|' => ' ']));

        return mb_substr(trim(mb_scrub($says), " \t:;,.–—-=)\"'`”*"), 0, 300);
    }

    private static function read(string $name, string $says, bool $isWhen, HelpWords $words): Placeholder
    {
        if ($isWhen) {
            return self::condition($name, $says);
        }
        [$byName, $nameIsClear] = $words->field($name);
        [$bySays, $saysIsClear] = $words->field($says);
        $field = $bySays ?? $byName;
        $agree = $byName === $bySays;
        [$isSure, $why] = match (true) {
            $field === null => [false, 'Neither its name nor its description says what it gives.'],
            $agree && ($nameIsClear || $saysIsClear) => [true, 'Its name and its description say so.'],
            $byName === null && $saysIsClear => [true, 'Its description says so.'],
            $bySays === null && $nameIsClear => [true, 'Its name says so.'],
            $byName !== null && $bySays !== null && ! $agree && self::narrows($byName, $bySays, $saysIsClear) => [
                true,
                'Its description says so.',
            ],
            $byName !== null && $bySays !== null && ! $agree => [
                false,
                "Its name sounds like {$byName}, its description like {$bySays}.",
            ],
            default => [false, 'It may be this, or something close to it.'],
        };
        $isLanding = $field === HelpWords::LANDING;

        return new Placeholder(
            $name,
            $isLanding ? TokenKind::Landing : TokenKind::Value,
            $isLanding ? null : $field,
            $isLanding ? ($words->encoding("{$name} {$says}") ?? null) : null,
            $says,
            $isSure,
            $why,
        );
    }

    /** It holds a text of its own, which counts for some clicks only. */
    private static function condition(string $name, string $says): Placeholder
    {
        [$byName, $bySays] = [Condition::in($name), Condition::in($says)];
        $condition = $bySays ?? $byName;
        $agree =
            $byName === null || $bySays === null || [$byName->field, $byName->is] === [$bySays->field, $bySays->is];

        return new Placeholder(
            $name,
            TokenKind::When,
            $condition?->field,
            null,
            $says,
            $condition !== null && $condition->isSure && $agree,
            match (true) {
                $condition === null => 'It holds a text of its own: for which clicks does that count?',
                ! $agree => 'Its name and its description differ.',
                default => 'It holds a text of its own, and its words say for which clicks that counts.',
            },
            $condition->is ?? [],
        );
    }

    /** `campaign` beside “the campaign's id”: the description says the same more exactly. */
    private static function narrows(string $byName, string $bySays, bool $isClear): bool
    {
        return $isClear && strtok($byName, '.') === strtok($bySays, '.') && str_ends_with($byName, '.name');
    }
}
