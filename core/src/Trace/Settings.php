<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Dialect\AutoTagMode;
use Vestigon\Core\Dialect\Delivery;
use Vestigon\Core\Document\Cursor;

/** What an account has switched. Null: the platform's default. */
final readonly class Settings
{
    public function __construct(public ?bool $clickId = null, public ?AutoTagMode $autoTags = null, public ?Delivery $delivery = null) {}

    public static function read(Cursor $c): self
    {
        return new self(
            $c->has('clickId') ? $c->at('clickId')->bool() : null,
            $c->has('autoTags') ? $c->at('autoTags')->enum(AutoTagMode::class) : null,
            $c->has('delivery') ? $c->at('delivery')->enum(Delivery::class) : null,
        );
    }
}
