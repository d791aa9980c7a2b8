<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Dialect\SlotKind;

/** What of a compilation belongs to which part of an account. */
final readonly class Shares
{
    public function __construct(private Account $account) {}

    /**
     * @param array<string, true> $parts
     * @return array<string, Compiled> what was found for each part, and for all others together under ''
     */
    public function split(Compiled $found, array $parts): array
    {
        $writes = $unmet = $overridden = array_fill_keys(['', ...array_keys($parts)], []);
        foreach ($found->writes as $write) {
            $writes[$this->partOf($write->node, $parts)][] = $write;
        }
        foreach ($found->unmet as $one) {
            $unmet[$this->partOf($one->node, $parts)][] = $one;
        }
        foreach ($found->overridden as $write) {
            $overridden[$this->partOf($write->node, $parts)][] = $write;
        }
        $shares = [];
        foreach ($writes as $part => $some) {
            $shares[$part] = new Compiled($some, $unmet[$part], [], $overridden[$part]);
        }

        return $shares;
    }

    /** @param array<string, mixed> $parts by key */
    public function partOf(string $node, array $parts): string
    {
        foreach ($this->account->keysTo($node) as $key) {
            if (isset($parts[$key])) {
                return $key;
            }
        }

        return '';
    }

    /** @param array<string, Compiled> $shares */
    public static function joined(array $shares): Compiled
    {
        $shares = array_values($shares);

        return new Compiled(
            array_merge(...array_map(static fn (Compiled $c): array => $c->writes, $shares)),
            array_merge(...array_map(static fn (Compiled $c): array => $c->unmet, $shares)),
            [],
            array_merge(...array_map(static fn (Compiled $c): array => $c->overridden, $shares)),
        );
    }

    /** @return list<int> the smaller, the better: what is unmet, landing URLs, writes */
    public static function rank(Compiled $share): array
    {
        return [
            ...$share->lack(),
            count(array_filter($share->writes, static fn (Write $w): bool => $w->slot === SlotKind::Landing)),
            count($share->writes),
        ];
    }
}
