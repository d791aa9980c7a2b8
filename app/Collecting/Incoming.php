<?php

namespace App\Collecting;

use App\Support\Text;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Watch\Event;
use Vestigon\Core\Watch\EventReader;

/** An event that has come in, with its number where it comes from: the same number is the same event. */
final readonly class Incoming
{
    public function __construct(public int $number, public Event $event, public string $device = '') {}

    /**
     * @param array<string, mixed> $item with its number as `id`
     *
     * @throws UnusableInput
     */
    public static function read(array $item, string $site): self
    {
        $device = $item['device'] ?? '';

        return new self(
            (int) ($item['id'] ?? 0),
            EventReader::read(new Cursor(['id' => (string) ($item['id'] ?? ''), 'site' => $site] + $item)),
            is_string($device) ? Text::fit($device, 16) : '',
        );
    }

    /** Of a record's word: the same word is the same record. */
    public static function numberOf(string $id): int
    {
        return (int) hexdec(substr(hash('sha256', $id), 0, 15));
    }
}
