<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** What the cells of a column can say. */
enum Says: string
{
    case Id = 'id';
    case Name = 'name';
    case Type = 'type';
    case Standing = 'standing';
    case PublishedName = 'publishedName';
    case Slot = 'slot';
    case Custom = 'custom';
    /** All custom parameters in one cell. */
    case CustomAll = 'custom all';
    case Attribute = 'attribute';
    /** What an account switches; only its own rows say it. */
    case Setting = 'setting';
    case KeywordText = 'keyword.text';
    case KeywordMatch = 'keyword.match';
    case Figure = 'figure';
    case Nothing = 'ignore';

    /** Of an element itself, without its level being named. */
    public function isOwn(): bool
    {
        return $this->isOfAnyLevel() || $this === self::Standing || $this === self::PublishedName;
    }

    /** Of elements above the row's own, too. */
    public function isOfAnyLevel(): bool
    {
        return $this === self::Id || $this === self::Name || $this === self::Type;
    }
}
