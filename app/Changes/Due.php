<?php

namespace App\Changes;

use App\Models\Change;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** A write of a change, with what we take its element to be. */
final readonly class Due
{
    private function __construct(
        public int $id,
        public int $position,
        public string $stage,
        public int $turn,
        public ?string $batch,
        public int $node,
        public string $kind,
        public string $name,
        public ?string $before,
        public ?string $after,
        public string $externalId,
        public int $version,
        public string $standing,
        public string $nodeName,
    ) {}

    /** @return Builder over change_writes and nodes, in the order of the writes */
    public static function of(Change $change): Builder
    {
        return DB::table('change_writes')
            ->join('nodes', 'nodes.id', 'node_id')
            ->where('change_id', $change->id)
            ->orderBy('change_writes.position')
            ->select(
                'change_writes.id',
                'change_writes.position as position_of_write',
                'stage',
                'turn',
                'batch',
                'node_id',
                'kind',
                'change_writes.name',
                'before',
                'after',
                'external_id',
                'version',
                'standing',
                'nodes.name as node_name',
            );
    }

    /** @return list<self> */
    public static function all(Builder $query): array
    {
        return array_map(
            static fn (object $r): self => new self(
                $r->id,
                $r->position_of_write,
                $r->stage,
                $r->turn,
                $r->batch,
                $r->node_id,
                $r->kind,
                $r->name,
                $r->before,
                $r->after,
                $r->external_id,
                $r->version,
                $r->standing,
                $r->node_name,
            ),
            array_values($query->get()->all()),
        );
    }

    /** Where the text stands: a place may be written more than once. */
    public function place(): string
    {
        return "{$this->node} {$this->kind} {$this->name}";
    }
}
