<?php

declare(strict_types=1);

namespace Standins\Platforms;

use Standins\Ads\AdPath;
use Standins\Ads\Platform;

/** Northquay Search: templates and suffixes on every level, no name tokens. */
final readonly class Northquay extends Platform
{
    public function __construct()
    {
        parent::__construct('northquay', 'Northquay Search', 'quay-7731', 'nq', [
            'account' => 'account',
            'campaign' => 'campaign',
            'group' => 'group',
            'ad' => 'ad',
        ]);
    }

    public function click(AdPath $path, array $facts, array $settings): string
    {
        if ($path->type() !== 'text') {
            $facts['term'] = $facts['match'] = '';
        }
        if ($path->type() !== 'listing') {
            $facts['product'] = '';
        }

        return (new NorthquayClick($path, $facts, $settings['clickId'] ?? true))->url();
    }

    public function problem(string $level, string $column, string $name, ?string $value, array $after): ?string
    {
        $noLanding =
            $column === 'slots'
            && $name === 'template'
            && $value !== null
            && preg_match('/\{landing(\.raw|\.enc2?)?\}/i', $value) !== 1;

        return parent::problem($level, $column, $name, $value, $after)
            ?? ($noLanding ? 'a template needs a landing token' : null);
    }

    protected function switches(): array
    {
        return ['clickId' => [true, false]];
    }

    protected function slots(): array
    {
        $all = array_keys($this->levels);

        return ['template' => [$all, 2048], 'suffix' => [$all, 1024], 'landing' => [['ad'], 2048]];
    }

    protected function customProblem(string $level, string $name, ?string $value, array $after): ?string
    {
        return match (true) {
            $level === 'account' => 'an account has no custom parameters',
            count($after) > 6 => 'a node takes at most 6 custom parameters',
            strlen($name) > 20 || $name === '' => 'a name of 1 to 20 characters is wanted',
            $value !== null && mb_strlen($value) > 180 => 'a value has at most 180 characters',
            default => null,
        };
    }
}
