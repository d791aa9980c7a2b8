<?php

declare(strict_types=1);

namespace Standins\Platforms;

use Standins\Ads\AdPath;
use Standins\Ads\Platform;
use Standins\Ads\Text;

/** Guildloft: the suffixes of account and campaign make one query, a narrower piece in place of a wider one. */
final readonly class Guildloft extends Platform
{
    public function __construct()
    {
        parent::__construct('guildloft', 'Guildloft', 'guild-6120', 'gl', [
            'account' => 'account',
            'programme' => 'folder',
            'campaign' => 'campaign',
            'creative' => 'ad',
        ]);
    }

    public function click(AdPath $path, array $facts, array $settings): string
    {
        $url = Text::add(
            $this->fill((string) $path->text('creative', 'landing'), $path),
            $this->fill($this->gathered($path), $path),
        );

        return $settings['clickId'] ?? false ? Text::add($url, 'glcid='.rawurlencode($facts['click'])) : $url;
    }

    private function gathered(AdPath $path): string
    {
        $pieces = [];
        foreach (['account', 'campaign'] as $level) {
            $own = array_filter(explode('&', trim((string) $path->text($level, 'suffix'), '?&')), strlen(...));
            $keys = array_map(static fn (string $p): string => explode('=', $p, 2)[0], $own);
            $pieces = [
                ...array_filter(
                    $pieces,
                    static fn (string $p): bool => ! in_array(explode('=', $p, 2)[0], $keys, true),
                ),
                ...$own,
            ];
        }

        return implode('&', $pieces);
    }

    private function fill(string $text, AdPath $path): string
    {
        return Text::fill(
            $text,
            '<<',
            '>>',
            static fn (string $name): string => rawurlencode(
                match ($name) {
                    'account-id' => $path->id('account'),
                    'account-name' => $path->name('account'),
                    'programme-id' => $path->id('programme'),
                    'programme-name' => $path->name('programme'),
                    'campaign-id' => $path->id('campaign'),
                    'campaign-name' => $path->name('campaign'),
                    'creative-id' => $path->id('creative'),
                    default => '',
                },
            ),
        );
    }

    protected function switches(): array
    {
        return ['clickId' => [true, false]];
    }

    protected function slots(): array
    {
        return ['suffix' => [['account', 'campaign'], 500], 'landing' => [['creative'], 2000]];
    }
}
