<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** What a column means: `id`, `campaign.name`, `slot.template`, `custom.season`, `setting.clickId` … */
final readonly class Meaning
{
    /** What a platform says of an element and a day. */
    public const NUMBERS = ['impressions', 'clicks', 'cost', 'conversions', 'value'];

    public const FIGURES = ['day', ...self::NUMBERS];

    /**
     * @param string|null $level of an element of this level; null: of the row's own
     * @param string $name which slot, custom parameter, attribute, setting or figure; else empty
     */
    public function __construct(public Says $says, public ?string $level = null, public string $name = '') {}

    /** @throws UnusableInput it means nothing */
    public static function read(Cursor $c, Dialect $dialect): self
    {
        $means = $c->string();
        $plain = Says::tryFrom($means);
        if ($plain?->isOwn() || in_array($plain, [Says::KeywordText, Says::KeywordMatch, Says::Nothing], true)) {
            return new self($plain);
        }
        if ($means === 'custom') {
            return new self(Says::CustomAll);
        }
        if (in_array($means, self::FIGURES, true)) {
            return new self(Says::Figure, name: $means);
        }
        [$of, $name] = explode('.', $means, 2) + [1 => ''];
        $says = Says::tryFrom($name);

        return match (true) {
            $name === '' => null,
            $of === 'slot' => SlotKind::tryFrom($name) === null ? null : new self(Says::Slot, name: $name),
            $of === 'custom' => new self(Says::Custom, name: $name),
            $of === 'setting' => (Setting::tryFrom($name)?->choices($dialect) ?? []) === []
                ? null
                : new self(Says::Setting, name: $name),
            $of === 'attribute' => new self(Says::Attribute, name: $name),
            $dialect->level($of) !== null && $says?->isOfAnyLevel() => new self($says, $of),
            default => null,
        } ?? $c->fail("\"{$means}\" is nothing that a column of {$dialect->title} can mean");
    }

    /** As it stands in a map. */
    public function written(): string
    {
        return match ($this->says) {
            Says::Slot, Says::Custom, Says::Attribute, Says::Setting => "{$this->says->value}.{$this->name}",
            Says::CustomAll => 'custom',
            Says::Figure => $this->name,
            default => ($this->level === null ? '' : "{$this->level}.").$this->says->value,
        };
    }
}
