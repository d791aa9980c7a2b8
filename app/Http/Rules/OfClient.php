<?php

namespace App\Http\Rules;

use App\Models\Client;
use Closure;
use Illuminate\Contracts\Validation\ValidationRule;

/**
 * Numbers in a body name things of the client in the address, whatever they are; foreign ones are refused as if they
 * did not exist.
 */
final readonly class OfClient implements ValidationRule
{
    private const WORDS = [
        'accounts' => 'account',
        'nodes' => 'element',
        'nodesEver' => 'element',
        'filters' => 'filter',
        'sheetMaps' => 'map',
        'readings' => 'reading',
        'changes' => 'change',
        'writes' => 'write',
        'outsideChanges' => 'change from outside',
    ];

    /**
     * @param string $what a relation of the client
     * @param int $most how many at once
     * @param string|null $in the numbers stand under this key of each element of a list
     */
    public function __construct(
        private Client $client,
        private string $what,
        private int $most = 1,
        private ?string $in = null,
    ) {}

    public function validate(string $attribute, mixed $value, Closure $fail): void
    {
        $some = is_array($value) ? $value : [$value];
        if (count($some) > $this->most) {
            $fail("At most {$this->most} are taken at once.");

            return;
        }
        $numbers = [];
        foreach ($some as $one) {
            $number = $this->in === null ? $one : (is_array($one) ? $one[$this->in] ?? null : null);
            if (! is_int($number) && ! (is_string($number) && preg_match('/^[0-9]{1,18}$/D', $number) === 1)) {
                $fail('A number is wanted'.($this->in === null ? '.' : " for each {$this->in}."));

                return;
            }
            $numbers[] = (int) $number;
        }
        $numbers = array_values(array_unique($numbers));
        $relation = $this->client->{$this->what}();
        if (
            $relation->whereIntegerInRaw($relation->getRelated()->qualifyColumn('id'), $numbers)->count()
            !== count($numbers)
        ) {
            $fail('There is no such '.self::WORDS[$this->what]." at {$this->client->name}.");
        }
    }
}
