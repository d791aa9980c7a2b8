<?php

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Plan\Plan as CorePlan;
use Vestigon\Core\Plan\PlanReader;

/**
 * One revision of a client's agreement.
 *
 * @property int $revision
 * @property array<string, mixed> $document
 */
final class Plan extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    protected $casts = ['document' => 'array', 'created_at' => 'datetime'];

    public function read(): CorePlan
    {
        return PlanReader::read(new Cursor($this->document));
    }
}
