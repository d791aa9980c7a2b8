<?php

namespace App\Watching;

use App\Models\Client;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Watch\Attribution;

/** How a client wants what arrives to be counted. */
final readonly class Settings
{
    /** Raw records are kept for so many days, where the client says nothing else. */
    public const RETENTION = 400;

    /**
     * @param list<array{host: string, source: string, medium: string}> $referrers what hosts are called, the first that
     *     fits counts
     * @param list<string> $stations hosts that people pass through on their way: payment, sign-in
     * @param int $retention days that raw records are kept; what was added up stays
     * @param int $provisional the last days, of which platforms say more later
     */
    private function __construct(
        public Attribution $attribution,
        public array $referrers,
        public array $stations,
        public int $retention,
        public int $provisional,
    ) {}

    public static function of(Client $client): self
    {
        $w = $client->watching ?? [];

        return new self(
            Attribution::read(new Cursor($w['attribution'] ?? [])),
            $w['referrers'] ?? [],
            $w['stations'] ?? [],
            (int) ($w['retention'] ?? self::RETENTION),
            (int) ($w['provisional'] ?? 3),
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'attribution' => ['model' => $this->attribution->model->value, 'days' => $this->attribution->days],
            'referrers' => $this->referrers,
            'stations' => $this->stations,
            'retention' => $this->retention,
            'provisional' => $this->provisional,
        ];
    }
}
