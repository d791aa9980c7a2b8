<?php

namespace App\Arrivals;

use Vestigon\Redirector\Programs;

/** Programs that say what they are: who comes by one of these names is nobody. */
final class KnownPrograms
{
    /** @var array{starts: array<string, list<string>>, others: string}|null */
    private ?array $known = null;

    public function isOne(string $agent): bool
    {
        return Programs::isOne($this->known ??= require base_path('redirector/programs.php'), $agent);
    }
}
