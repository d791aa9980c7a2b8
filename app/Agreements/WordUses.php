<?php

namespace App\Agreements;

use App\Models\Client;
use App\Models\Text;
use Illuminate\Database\Query\Builder;
use Vestigon\Core\Plan\Cell;
use Vestigon\Core\Plan\Plan;

/** Who uses the words of a key: the plan, texts, what arrives. */
final readonly class WordUses
{
    public function __construct(private Client $client) {}

    /**
     * Words that arrive with a key, and how often in the last days.
     *
     * @return array<string, int>
     */
    public function arrivals(string $key): array
    {
        $found = [];
        foreach (isset(Lines::COLUMNS[$key]) ? Lines::of($this->client, [$key]) : [] as $line) {
            $found[$line['values'][$key]] = $line['arrivals'];
        }
        unset($found['']);
        arsort($found);

        return $found;
    }

    /**
     * The cells of a plan that say a word.
     *
     * @return list<Cell>
     */
    public static function inPlan(?Plan $plan, string $key, string $word): array
    {
        $cells = [];
        foreach ($plan->parameters ?? [] as $parameter) {
            foreach ($parameter->key === $key ? $parameter->cells() : [] as $cell) {
                if ($cell->word() === $word) {
                    $cells[] = $cell;
                }
            }
        }

        return $cells;
    }

    /**
     * Accounts with live texts that say a word, and in how many.
     *
     * @return list<array{id: int, name: string, texts: int}>
     */
    public function inTexts(string $key, string $word): array
    {
        return $this->saying($key, $word)
            ->join('accounts', 'accounts.id', 'nodes.account_id')
            ->groupBy('accounts.id', 'accounts.name')
            ->orderBy('accounts.name')
            ->selectRaw('accounts.id, accounts.name, count(*) texts')
            ->get()
            ->map(static fn (object $r): array => ['id' => $r->id, 'name' => $r->name, 'texts' => (int) $r->texts])
            ->all();
    }

    /** The expression that finds a word where it is the whole value of a key. */
    public static function pattern(string $key, string $word): string
    {
        return '(?<=[?&#]|^)'.preg_quote("{$key}={$word}", '~').'(?=[&#]|$)';
    }

    private function saying(string $key, string $word): Builder
    {
        return Text::query()
            ->join('nodes', 'nodes.id', 'texts.node_id')
            ->whereIn('nodes.account_id', $this->client->accounts()->select('id'))
            ->whereNull('nodes.gone_at')
            ->whereNull('texts.until')
            ->whereIn('texts.kind', ['template', 'suffix', 'landing'])
            ->whereRaw('texts.text regexp ?', [self::pattern($key, $word)])
            ->toBase();
    }
}
