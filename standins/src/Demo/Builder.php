<?php

declare(strict_types=1);

namespace Standins\Demo;

use Standins\Store;

/** Writes one platform's demo accounts into the store. */
final class Builder
{
    private int $position = 0;

    private string $account = '';

    /** @param int $number the first id that is given out */
    public function __construct(
        private readonly Store $store,
        private readonly string $platform,
        private readonly string $customer,
        private int $number,
    ) {}

    /**
     * @param array<string, mixed> $settings
     * @param array<string, string> $slots
     */
    public function account(string $id, string $name, array $settings, array $slots = []): string
    {
        $this->account = $id;
        $this->store->run('insert into accounts (platform, id, customer, settings) values (?, ?, ?, ?)', [
            $this->platform,
            $id,
            $this->customer,
            json_encode($settings === [] ? new \stdClass() : $settings),
        ]);

        return $this->insert($id, null, 'account', $name, null, $slots, [], [], null, []);
    }

    /**
     * @param array<string, string> $slots
     * @param list<array{text: string, match: string}> $keywords
     * @param array<string, string> $custom
     * @param string|null $published the name it had when it was published, where it differs
     * @param array<string, string> $facts
     */
    public function node(
        string $parent,
        string $level,
        string $name,
        ?string $type = null,
        array $slots = [],
        array $keywords = [],
        array $custom = [],
        ?string $published = null,
        array $facts = [],
    ): string {
        return $this->insert(
            (string) $this->number++,
            $parent,
            $level,
            $name,
            $type,
            $slots,
            $keywords,
            $custom,
            $published,
            $facts,
        );
    }

    /**
     * @param array<string, string> $slots
     * @param list<array{text: string, match: string}> $keywords
     * @param array<string, string> $custom
     * @param array<string, string> $facts
     */
    private function insert(
        string $id,
        ?string $parent,
        string $level,
        string $name,
        ?string $type,
        array $slots,
        array $keywords,
        array $custom,
        ?string $published,
        array $facts,
    ): string {
        $json = static fn (mixed $v): string => json_encode(
            $v,
            JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR,
        );
        $this->store->run(
            'insert into nodes (platform, id, account, parent, level, position, name, type, slots, custom, keywords, '
                .'published, facts, version) values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 1)',
            [
                $this->platform,
                $id,
                $this->account,
                $parent,
                $level,
                $this->position++,
                $name,
                $type,
                $json((object) $slots),
                $json((object) $custom),
                $json($keywords),
                $published,
                $json((object) $facts),
            ],
        );

        return $id;
    }
}
