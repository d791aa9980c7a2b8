<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Dialect\AutoTagMode;
use Vestigon\Core\Dialect\Delivery;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Document\Cursor;

/** What an account has switched. Null: the platform's default. */
final readonly class Settings
{
    public function __construct(
        public ?bool $clickId = null,
        public ?AutoTagMode $autoTags = null,
        public ?Delivery $delivery = null,
    ) {}

    public static function read(Cursor $c): self
    {
        return new self(
            $c->has('clickId') ? $c->at('clickId')->bool() : null,
            $c->has('autoTags') ? $c->at('autoTags')->enum(AutoTagMode::class) : null,
            $c->has('delivery') ? $c->at('delivery')->enum(Delivery::class) : null,
        );
    }

    public function is(self $other): bool
    {
        return $this->clickId === $other->clickId
            && $this->autoTags === $other->autoTags
            && $this->delivery === $other->delivery;
    }

    /** Does the platform put something of its own into the landing URL's query, before a template gets that? */
    public function joinLanding(Dialect $dialect): bool
    {
        return ($dialect->clickId?->isOn($this->clickId) ?? false)
            || ($dialect->autoTags !== null
                && $dialect->autoTags->tags !== []
                && ($this->autoTags ?? $dialect->autoTags->default) !== AutoTagMode::Off);
    }

    public function text(Setting $setting): ?string
    {
        return Setting::text(
            match ($setting) {
                Setting::ClickId => $this->clickId,
                Setting::AutoTags => $this->autoTags?->value,
                Setting::Delivery => $this->delivery?->value,
            },
        );
    }

    /** @param string|null $text one that the setting can have; null: the platform's default again */
    public function with(Setting $setting, ?string $text): self
    {
        return match ($setting) {
            Setting::ClickId => new self(
                $text === null ? null : $text === 'on',
                $this->autoTags,
                $this->delivery,
            ),
            Setting::AutoTags => new self(
                $this->clickId,
                $text === null ? null : AutoTagMode::from($text),
                $this->delivery,
            ),
            Setting::Delivery => new self(
                $this->clickId,
                $this->autoTags,
                $text === null ? null : Delivery::from($text),
            ),
        };
    }
}
