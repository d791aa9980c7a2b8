<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Vestigon\Core\Trace\Hop;

/**
 * A click tracker that clicks may pass on their way.
 *
 * @property int $id
 * @property int $client_id
 * @property string $host
 * @property string $parameter that holds the destination
 * @property bool $forwards its other parameters travel on
 * @property list<array{key: string, text: string}> $adds
 * @property int $revision
 */
final class Tracker extends Model
{
    use NumberedInAddresses;

    protected $guarded = [];

    protected $attributes = ['revision' => 1];

    protected $casts = ['forwards' => 'bool', 'adds' => 'array'];

    public function hop(): Hop
    {
        return new Hop(
            $this->host,
            $this->parameter,
            $this->forwards,
            array_map(static fn (array $a): array => [$a['key'], $a['text']], $this->adds),
        );
    }
}
