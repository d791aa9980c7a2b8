<?php

namespace App\Balance;

/** Which sessions a balance is told out of: those that arrived, or as they were meant, in a reading. */
final readonly class Sessions
{
    public string $table;

    public string $shares;

    /** How sessions of a click are found, behind their table. */
    public string $byClick;

    /** @param int|null $reading null: as it arrived */
    public function __construct(public ?int $reading = null)
    {
        $this->table = $reading === null ? 'site_sessions' : 'meant_sessions';
        $this->byClick =
            'force index ('.($reading === null ? 'site_sessions_client_id_click_id_index' : 'reading_id_3').')';
        $this->shares = $reading === null ? 'shares' : 'meant_shares';
    }

    /** @return string what narrows a table to the reading, in SQL behind other conditions */
    public function within(string $table): string
    {
        return $this->reading === null ? '' : " and {$table}.reading_id = {$this->reading}";
    }
}
