<?php

declare(strict_types=1);

namespace Vestigon\Core\Learn;

use Vestigon\Core\Account\NodeReader;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Plan\Fields;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Settings;

/**
 * Which of a platform's rules explain a real click's URL, beside the texts that made it; and which would, where those
 * of its document do not.
 *
 * The texts are put together with stand-ins for all that is filled in at the click; the URL must be that, with
 * anything in the places of the stand-ins. Where it is not, rules are said otherwise, as few as can be, until it is.
 * What stands in the places tells how often values are encoded, and how spaces are written.
 *
 * @phpstan-import-type DialectDocument from RuleChange
 * @phpstan-type TriedNode array{
 *     level: string,
 *     type?: string|null,
 *     slots?: array<string, string>,
 *     custom?: array<string, string>,
 * }
 */
final readonly class Explained
{
    private const MOST_CHANGES = 3;

    /**
     * @param list<RuleChange>|null $changes to the document; none: it explains the URL; null: nothing does
     * @param array<string, string> $values what was filled in, as it stands in the URL, by field
     * @param int $until bytes of the URL that the document explains as it is
     */
    private function __construct(public ?array $changes, public array $values, public int $until) {}

    /**
     * @param DialectDocument $document one that can be read
     * @param list<TriedNode> $nodes of each level, the account first
     *
     * @throws UnusableInput
     */
    public static function of(array $document, array $nodes, string $url): self
    {
        $texts = implode("\n", array_map(
            static fn (array $n): string => implode("\n", [...$n['slots'] ?? [], ...$n['custom'] ?? []]),
            $nodes,
        ));
        $choices = RuleChoices::of($document, $texts, $url);
        foreach (self::subsets($choices) as $some) {
            $said = $document;
            foreach ($some as $change) {
                $said = $change->in($said);
            }
            try {
                $values = self::matched(self::made($said, $nodes), $url);
            } catch (UnusableInput $e) {
                if ($some === []) {
                    throw $e;
                }

                continue; // rules that contradict each other
            }
            if ($values !== null) {
                return new self(
                    [...$some, ...ValueForms::changes($said, $values, $texts)],
                    array_map(static fn (array $forms): string => $forms[0], $values),
                    strlen($url),
                );
            }
        }

        return new self(null, [], self::agrees(self::made($document, $nodes), $url));
    }

    /**
     * @param list<RuleChange> $choices
     * @return iterable<list<RuleChange>> none, then one, two and three at a time, each place once
     */
    private static function subsets(array $choices, int $from = 0): iterable
    {
        $level = [[[], -1]];
        for ($size = 0; $size <= self::MOST_CHANGES; $size++) {
            $next = [];
            foreach ($level as [$some, $last]) {
                yield $some;
                foreach ($size === self::MOST_CHANGES ? [] : array_slice($choices, $last + 1, null, true) as $i => $c) {
                    $places = array_map(static fn (RuleChange $r): string => $r->place(), $some);
                    if (! in_array($c->place(), $places, true)) {
                        $next[] = [[...$some, $c], $i];
                    }
                }
            }
            $level = $next;
        }
    }

    /**
     * The click URL with stand-ins: letters and digits, which no encoding touches.
     *
     * @param DialectDocument $document
     * @param list<TriedNode> $nodes
     * @return array{string, array<string, string>} the URL; stand-in → field
     */
    private static function made(array $document, array $nodes): array
    {
        foreach ($document['tokens'] as $i => $token) {
            unset($document['tokens'][$i]['values']);
        }
        $dialect = DialectReader::read(new Cursor($document));
        $standIns = [];
        $standIn = static function (string $field) use (&$standIns): string {
            $text = 'zq'.count($standIns).'x';
            $standIns[$text] = $field;

            return $text;
        };
        $named = [];
        foreach ($nodes as $node) {
            $role = $dialect->level($node['level'])?->role->value ?? $node['level'];
            $named[] = ['id' => $standIn("{$role}.id"), 'name' => $standIn("{$role}.name")] + $node;
        }
        $path = NodeReader::path(new Cursor($named, 'nodes'), $dialect);
        $context = [];
        foreach (Fields::OF_A_CLICK as $field) {
            $context[$field] = $standIn($field);
        }

        return [Route::once($path, $context, new Settings(clickId: true))->clickUrl ?? '', $standIns];
    }

    /**
     * @param array{string, array<string, string>} $made
     * @return array<string, list<string>>|null what stands for each field; null: the URL is not that
     */
    private static function matched(array $made, string $url): ?array
    {
        [$parts, $fields] = self::parts($made);
        $pattern = implode('([^&#]*)', array_map(static fn (string $p): string => preg_quote($p, '~'), $parts));
        if (preg_match("~^{$pattern}$~D", $url, $m) !== 1) {
            return null;
        }
        $values = [];
        foreach ($fields as $i => $field) {
            $values[$field][] = $m[$i + 1];
        }

        return $values;
    }

    /**
     * @param array{string, array<string, string>} $made
     * @return int how many bytes of the URL are that, from its beginning
     */
    private static function agrees(array $made, string $url): int
    {
        [$parts] = self::parts($made);
        $at = 0;
        foreach ($parts as $i => $part) {
            $found = $i === 0 ? 0 : strpos($url, $part, $at);
            if ($found === false || substr_compare($url, $part, $found, strlen($part)) !== 0) {
                $same = strspn($part ^ substr($url, $at, strlen($part)), "\0");

                return $at + $same;
            }
            $at = $found + strlen($part);
        }

        return $at;
    }

    /**
     * @param array{string, array<string, string>} $made
     * @return array{list<string>, list<string>} the fixed stretches, and the field between each two
     */
    private static function parts(array $made): array
    {
        [$url, $standIns] = $made;
        $pieces = preg_split('/(zq\d+x)/', $url, -1, PREG_SPLIT_DELIM_CAPTURE) ?: [];
        $parts = $fields = [];
        foreach ($pieces as $i => $piece) {
            if ($i % 2 === 0) {
                $parts[] = $piece;
            } else {
                $fields[] = $standIns[$piece];
            }
        }

        return [$parts, $fields];
    }
}
