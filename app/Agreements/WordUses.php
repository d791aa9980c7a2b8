<?php

namespace App\Agreements;

use App\Models\Client;
use App\Models\Text;
use Illuminate\Database\Query\Builder;
use Vestigon\Core\Findings\PlanWords;
use Vestigon\Core\Plan\Cell;
use Vestigon\Core\Plan\Plan;

/** Who uses the words of a key: the plan, texts, what arrives. */
final readonly class WordUses
{
    public function __construct(private Client $client) {}

    /**
     * The words that arrive most often with a key, and how often in the last days; of some words whether they arrive or
     * not.
     *
     * @param list<string> $words
     * @return array<string, int>
     */
    public function arrivals(string $key, array $words, int $most): array
    {
        $column = Lines::COLUMNS[$key] ?? null;
        if ($column === null) {
            return [];
        }
        $counted = fn (): Builder => $this->client
            ->arrivals()
            ->where('at', '>', now()->subDays(Lines::DAYS))
            ->where($column, '<>', '')
            ->groupBy($column)
            ->toBase()
            ->selectRaw("{$column} word, count(*) n")
            ->orderByDesc('n');

        $whole = static fn (mixed $n): int => (int) $n;

        // a word may look like a number: no renumbering
        return $counted()->limit($most)->pluck('n', 'word')->map($whole)->all()
            + $counted()->whereIn($column, $words)->pluck('n', 'word')->map($whole)->all();
    }

    /**
     * The cells of a plan that say a word.
     *
     * @return list<Cell>
     */
    public static function inPlan(?Plan $plan, string $key, string $word): array
    {
        return array_values(
            array_filter(PlanWords::cells($plan, $key), static fn (Cell $cell): bool => $cell->word() === $word),
        );
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

    /** The expression that finds a word where it is the whole value of a key, as it is or percent-encoded. */
    public static function pattern(string $key, string $word): string
    {
        $encoded = rawurlencode($word);
        $written = array_unique([$word, $encoded, str_replace('%20', '+', $encoded), strtolower($encoded)]);

        return '(?<=[?&#]|^)'
            .preg_quote("{$key}=", '~')
            .'(?:'
            .implode('|', array_map(static fn (string $w): string => preg_quote($w, '~'), $written))
            .')(?=[&#]|$)';
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
