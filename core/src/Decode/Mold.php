<?php

declare(strict_types=1);

namespace Vestigon\Core\Decode;

use Vestigon\Core\Template\StrangeWord;
use Vestigon\Core\Trace\Blueprint;
use Vestigon\Core\Trace\Stop;
use Vestigon\Core\Trace\Trail;
use Vestigon\Core\Trace\Value;

/**
 * How a landing URL looks for one shape of clicks: fixed texts, and values between them. Laid over a URL, it reads the
 * values back.
 */
final class Mold
{
    /** So many ways to read the values of one URL are tried. */
    private const MOST_READINGS = 64;

    /** Of its fixed texts the longest: most URLs that it does not fit do not have it. */
    private readonly string $longest;

    /** @var array{string, list<Value>}|null the expression where no value is known; made when first asked for */
    private ?array $unknowing = null;

    /**
     * @param string $address all before the query: what is looked up by
     * @param list<string|Value> $parts of the landing URL: fixed texts, and values between them
     * @param array<string, string> $context of a click of this shape
     */
    private function __construct(
        public readonly string $address,
        private readonly array $parts,
        private readonly array $context,
    ) {
        $fixed = array_filter($parts, is_string(...));
        usort($fixed, static fn (string $a, string $b): int => strlen($b) <=> strlen($a));
        $this->longest = $fixed[0] ?? '';
    }

    /**
     * @param array<string, string> $context that makes the shape
     * @return self|null null: no such click lands
     */
    public static function of(Blueprint $shape, Trail $trail, array $context): ?self
    {
        $values = [];
        $plain = $shape->written(static function (Value $value) use (&$values): string {
            $values[] = $value;

            return '';
        });
        if ($plain === null) {
            return null;
        }
        $word = StrangeWord::to($plain);
        $n = 0;
        $url = $shape->written(static function () use ($word, &$n): string {
            return $word.self::letters($n++);
        });
        $steps = $trail->from((string) $url);
        [$landed, $stop] = $steps[count($steps) - 1];
        if ($stop !== Stop::Landed) {
            return null;
        }
        $parts = [];
        foreach (preg_split('/('.$word.'[a-z]{3})/', $landed, flags: PREG_SPLIT_DELIM_CAPTURE) ?: [] as $i => $part) {
            $parts[] = $i % 2 === 0 ? $part : $values[self::number(substr($part, -3))];
        }

        return new self(self::addressOf($landed), $parts, $context);
    }

    /** What stands before the query and the fragment; the scheme and host in lower case. */
    public static function addressOf(string $url): string
    {
        $address = substr($url, 0, strcspn($url, '?#'));

        return (string) preg_replace_callback(
            '~^[a-z][a-z0-9+.-]*://[^/]*~i',
            static fn (array $m): string => strtolower($m[0]),
            $address,
        );
    }

    /** Are any of its values before the query? Then it can't be looked up by that. */
    public function isOpen(): bool
    {
        $first = $this->parts[0] ?? '';

        return count($this->parts) > 1 && is_string($first) && strpbrk($first, '?#') === false;
    }

    /**
     * @param array<string, string> $facts values that are known, by field: what is known needs not be told apart
     * @return iterable<array<string, string>> contexts that may have made the URL
     */
    public function readings(string $url, array $facts = []): iterable
    {
        if (! str_contains($url, $this->longest)) {
            return;
        }
        [$pattern, $values] = $facts === [] ? $this->unknowing ??= $this->pattern([]) : $this->pattern($facts);
        if (preg_match($pattern, $url, $found) !== 1) {
            return;
        }
        $contexts = [[]];
        foreach ($values as $i => $value) {
            $next = [];
            foreach ($contexts as $context) {
                foreach ($value->readings($found[$i + 1]) as $reading) {
                    if (($context[$value->field] ?? $reading) === $reading && count($next) < self::MOST_READINGS) {
                        $next[] = [$value->field => $reading] + $context;
                    }
                }
            }
            $contexts = $next;
        }
        foreach ($contexts as $context) {
            yield $context + array_intersect_key($facts, $this->fields());
        }
    }

    /** @return array<string, true> that its values are of */
    private function fields(): array
    {
        $fields = [];
        foreach ($this->parts as $part) {
            if ($part instanceof Value) {
                $fields[$part->field] = true;
            }
        }

        return $fields;
    }

    /**
     * @param array<string, string> $facts
     * @return array{string, list<Value>} an expression, and the values that it reads
     */
    private function pattern(array $facts): array
    {
        $pattern = '';
        $values = [];
        foreach ($this->parts as $part) {
            if (is_string($part)) {
                $pattern .= preg_quote($part, '~');
            } elseif (isset($facts[$part->field])) {
                $ways = array_map(
                    static fn (string $way): string => preg_quote($way, '~'),
                    $part->writings($facts[$part->field]),
                );
                $pattern .= '(?:'.implode('|', $ways).')';
            } elseif (($same = array_search($part, $values, false)) !== false) {
                $pattern .= '\g{'.($same + 1).'}';
            } else {
                $values[] = $part;
                $pattern .= '([^&#?]*?)';
            }
        }

        return ["~^{$pattern}$~sD", $values];
    }

    /** @return array<string, string> a click of this shape, but for the values that were read */
    public function rest(): array
    {
        return $this->context;
    }

    private static function letters(int $n): string
    {
        return chr(97 + intdiv($n, 676) % 26).chr(97 + intdiv($n, 26) % 26).chr(97 + $n % 26);
    }

    private static function number(string $letters): int
    {
        return (ord($letters[0]) - 97) * 676 + (ord($letters[1]) - 97) * 26 + ord($letters[2]) - 97;
    }
}
