<?php

namespace App\Models;

use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Naming\Patterns;
use Vestigon\Core\Plan\AgreedWords;
use Vestigon\Core\Plan\KeySets;

/** What people agree on beside the plan. */
enum AgreementKind: string
{
    case Words = 'words';
    case Channels = 'channels';
    case Names = 'names';
    case Keys = 'keys';

    /** Does it change what ads are proven against? */
    public function matters(): bool
    {
        return $this === self::Words || $this === self::Names;
    }

    /** Does it change what is right in a link? */
    public function mattersForLinks(): bool
    {
        return $this === self::Words || $this === self::Channels;
    }

    /**
     * @param array<mixed> $document
     *
     * @throws UnusableInput with the place of the first thing that is wrong
     */
    public function check(array $document): void
    {
        match ($this) {
            self::Words => AgreedWords::read(new Cursor($document)),
            self::Channels => ChannelsReader::read(new Cursor($document)),
            self::Names => Patterns::read((new Cursor($document))->at('patterns')),
            self::Keys => KeySets::read(new Cursor($document)),
        };
    }

    /** @return array<string, mixed> what holds where nothing was agreed */
    public function first(): array
    {
        return match ($this) {
            self::Words => ['format' => AgreedWords::FORMAT, 'keys' => []],
            self::Channels => ChannelsReader::shippedDocument(),
            self::Names => ['patterns' => []],
            self::Keys => KeySets::shippedDocument(),
        };
    }
}
