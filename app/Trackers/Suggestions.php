<?php

namespace App\Trackers;

use App\Accounts\Branches;
use App\Accounts\SampleClick;
use App\Accounts\StoredTexts;
use App\Accounts\Trees;
use App\Models\Account;
use App\Models\Client;
use App\Models\Node;
use App\Models\Text;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\LikelyHop;
use Vestigon\Core\Trace\Route;

/** Click trackers that a client's texts show, and that nobody has told of yet. */
final readonly class Suggestions
{
    /** Texts of each kind that are looked at in an account. */
    private const MOST_TEXTS = 2000;

    private const MOST = 50;

    public function __construct(private Client $client) {}

    /** @return list<array<string, mixed>> one a host, those that are sure first */
    public function all(): array
    {
        $known = $this->client->trackers()->pluck('host')->flip()->all();
        $found = [];
        foreach ($this->client->accounts as $account) {
            $reader = new TemplateReader(Trees::dialect($account));
            foreach (['template', 'landing'] as $kind) {
                foreach ($this->texts($account, $kind) as $node => $text) {
                    $likely = $kind === 'template'
                        ? LikelyHop::inTemplate($text, $reader)
                        : LikelyHop::inLanding($text);
                    $host = $likely->hop->host ?? '';
                    if ($likely === null || isset($known[$host])) {
                        continue;
                    }
                    $found[$host] ??= [
                        'host' => $host,
                        'parameter' => $likely->hop->to,
                        'forwards' => $likely->hop->appends,
                        'isSure' => $likely->isSure,
                        'why' => $likely->why,
                        'text' => $text,
                        'texts' => 0,
                        'account' => $account->name,
                        'url' => self::click($account, $node),
                    ];
                    $found[$host]['texts']++;
                    if (count($found) >= self::MOST) {
                        return self::surestFirst($found);
                    }
                }
            }
        }

        return self::surestFirst($found);
    }

    /**
     * @param array<string, array<string, mixed>> $found
     * @return list<array<string, mixed>>
     */
    private static function surestFirst(array $found): array
    {
        $found = array_values($found);
        usort(
            $found,
            static fn (array $a, array $b): int => [$b['isSure'], $b['texts']] <=> [$a['isSure'], $a['texts']],
        );

        return $found;
    }

    /** @return iterable<int, string> node → text, the wider ones first */
    private function texts(Account $account, string $kind): iterable
    {
        return Text::query()
            ->join('nodes', 'nodes.id', 'texts.node_id')
            ->where(['nodes.account_id' => $account->id, 'kind' => $kind])
            ->whereNull('nodes.gone_at')
            ->whereNull('until')
            ->where('text', 'like', 'http%')
            ->where('text', 'like', '%?%')
            ->orderBy('nodes.depth')
            ->limit(self::MOST_TEXTS)
            ->pluck('text', 'node_id');
    }

    /** What an ad at or below the element sends when it is clicked; null: there is none. */
    private static function click(Account $account, int $node): ?string
    {
        $ad = Node::query()
            ->where(['account_id' => $account->id, 'is_ad' => true])
            ->where(
                static fn ($q) => $q
                    ->whereKey($node)
                    ->orWhereIntegerInRaw('parent_id', array_slice(Branches::below($account, [$node]), 0, 1000)),
            )
            ->orderBy('position')
            ->first();
        if ($ad === null) {
            return null;
        }
        $branch = Branches::of($account, $ad->id);
        $path = $branch->path($ad->id);

        return Route::once(
            $path,
            SampleClick::of($path, $branch->keywords($ad->id)),
            StoredTexts::settings($account),
            [],
        )->clickUrl;
    }
}
