<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Template\Distinct;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Url\Encoding;
use Vestigon\Core\Url\Query;

/**
 * inconsistent: one key has fixed values over an account that differ by case or spacing only; reports count them apart.
 */
final class Spellings
{
    /**
     * @var array<string, array<string, array{int, Node, SlotKind, int, int, string}>> key and bare value → spelling →
     *     how often, and where first
     */
    private array $seen = [];

    /** @var list<string> */
    private readonly array $keys;

    public function __construct(private readonly TemplateReader $reader, ?Plan $plan)
    {
        $this->keys = Keys::of($plan);
    }

    /** @param list<array{string, string}> $values as of() gives them */
    public function add(array $values, int $times): void
    {
        foreach ($values as [$group, $spelling]) {
            $this->seen[$group][$spelling][0] += $times;
        }
    }

    /** @return array<string, array<string, array{int, Node, SlotKind, int, int, string}>> what was counted so far */
    public function seen(): array
    {
        return $this->seen;
    }

    /** @param array<string, array<string, array{int, Node, SlotKind, int, int, string}>> $seen elsewhere */
    public function take(array $seen): void
    {
        foreach ($seen as $group => $spellings) {
            foreach ($spellings as $spelling => $place) {
                $times = $this->seen[$group][$spelling][0] ?? 0;
                $this->seen[$group][$spelling] ??= $place;
                $this->seen[$group][$spelling][0] = $times + $place[0];
            }
        }
    }

    /** @return list<Finding> one for each rarer spelling */
    public function findings(): array
    {
        $found = [];
        foreach ($this->seen as $group => $spellings) {
            if (count($spellings) < 2) {
                continue;
            }
            $common = (string) array_key_first(
                array_filter($spellings, static fn (array $s): bool => $s[0] === max(array_column($spellings, 0))),
            );
            foreach ($spellings as $spelling => [$times, $node, $slot, $at, $length, $key]) {
                $spelling = (string) $spelling;
                if ($spelling !== $common) {
                    $text = (string) $node->slot($slot);
                    $found[] = new Finding(
                        'inconsistent',
                        Severity::Warning,
                        "{$key} is “{$spelling}” here ({$times} times) and “{$common}” elsewhere "
                            ."({$spellings[$common][0]} times): reports count them apart.",
                        $node,
                        $slot,
                        at: $at,
                        length: $length,
                        key: $key,
                        fix: new Fix(
                            "write {$common}",
                            substr_replace($text, Encoding::encode($common), $at, $length),
                        ),
                    );
                }
            }
        }

        return $found;
    }

    /** @return list<array{string, string}> group and spelling of each fixed value in a node's texts */
    public function of(Node $node): array
    {
        $list = [];
        foreach (SlotKind::cases() as $kind) {
            $text = $node->slot($kind);
            foreach (
                $text === null
                    ? []
                    : array_slice(
                        $this->reader->read($text)->queryInside($kind === SlotKind::Suffix)->pieces,
                        $kind === SlotKind::Suffix ? 0 : 1,
                    ) as $pair
            ) {
                if ($pair->value === null || ! $pair->valueFixed || ! in_array($pair->key, $this->keys, true)) {
                    continue;
                }
                $value = Query::decoded($pair->value);
                $group = Distinct::of($pair->key, Spelling::bare($value));
                $this->seen[$group][$value] ??= [
                    0,
                    $node,
                    $kind,
                    $pair->valueAt,
                    strlen($pair->value),
                    $pair->key,
                ];
                $list[] = [$group, $value];
            }
        }

        return $list;
    }
}
