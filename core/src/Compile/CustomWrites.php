<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Plan\Fields;
use Vestigon\Core\Template\TemplateReader;

/** The custom parameters that give the plan's fields, where elements do not have them with the right value yet. */
final readonly class CustomWrites
{
    /**
     * @param list<Write> $writes
     * @param array<string, Node> $after the nodes with them, where they change
     * @param array<string, list<Unmet>> $noRoom custom parameter → the nodes that can't take it
     * @param array<string, true> $named
     */
    private function __construct(
        public array $writes,
        public array $after,
        public array $noRoom,
        private array $named,
    ) {}

    /** @param array<string, CustomName> $customs */
    public static function of(Scope $scope, array $customs): self
    {
        $account = $scope->account;
        $writes = $after = $noRoom = [];
        foreach ($customs as $custom) {
            $role = Fields::owner($custom->field);
            $level = $role === null ? null : $account->dialect->levelOf($role)?->id;
            foreach ($level === null ? [] : $account->nodesOn($level) as $key => $owner) {
                $value = $custom->shape->of(
                    (new Path($account->dialect, [$owner]))->fields(false)[$custom->field] ?? '',
                );
                foreach ($scope->writableFor($key) as $at) {
                    $node = $account->nodes[$at];
                    $before = $node->custom[$custom->name] ?? null;
                    if ($node !== $owner && ($owner->custom[$custom->name] ?? null) === $value && $before === null) {
                        continue; // it comes from above as it should
                    }
                    $why = self::refusal($account, $after[$at] ?? $node, $before === null, $value);
                    if ($why !== null) {
                        $noRoom[$custom->name][] = new Unmet($at, $custom->field, "{$node->name}: {$why}");
                    } elseif ($before !== $value) {
                        $after[$at] = ($after[$at] ?? $node)->withCustom($custom->name, $value);
                        $writes[] = Write::custom($at, $custom->name, $before, $value);
                    }
                }
            }
        }

        return new self($writes, $after, $noRoom, array_fill_keys(array_column($customs, 'name'), true));
    }

    /** Why the platform would refuse it; null: it takes it. */
    private static function refusal(Account $account, Node $node, bool $isNew, string $value): ?string
    {
        $rules = $account->dialect->customParameters;

        return match (true) {
            ! in_array($node->level, $rules->levels ?? [], true) => "a {$node->level} has no custom parameters, and "
                .'what stands above is not to be written to',
            $isNew && count($node->custom) >= ($rules->max ?? 0) => "the most of {$rules?->max} custom parameters are "
                .'in use',
            mb_strlen($value) > ($rules->valueLength ?? 0) => 'the value is longer than the '
                ."{$rules?->valueLength} characters a custom parameter takes",
            default => null,
        };
    }

    /**
     * Those that a text uses, as texts will be; read no further once all that were named are among them.
     *
     * @param array<string, Node> $after
     * @return array<string, true>
     */
    public function usedIn(Account $account, array $after, TemplateReader $reader): array
    {
        $used = $seen = [];
        foreach ([$after, $account->nodes] as $nodes) {
            foreach (array_diff_key($this->named, $used) === [] ? [] : $nodes as $key => $node) {
                foreach (($after[$key] ?? $node)->slots as $text) {
                    if (! isset($seen[$text])) {
                        $seen[$text] = true;
                        $used += $reader->read($text)->customNames;
                    }
                }
            }
        }

        return $used;
    }
}
