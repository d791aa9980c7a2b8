<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** What was taken back of orders. */
final readonly class Refunds
{
    /** @param array<string, int> $orders minor units, by site and order */
    public function __construct(private array $orders = []) {}

    /** @throws UnusableInput */
    public static function read(Cursor $list): self
    {
        $orders = [];
        foreach ($list->list() as $c) {
            $of = $c->at('site')->string()."\0".$c->at('order')->someText();
            $orders[$of] = ($orders[$of] ?? 0) + $c->at('value')->int();
        }

        return new self($orders);
    }

    public function of(Event $conversion): int
    {
        return $this->orders["{$conversion->site}\0{$conversion->order}"] ?? 0;
    }
}
