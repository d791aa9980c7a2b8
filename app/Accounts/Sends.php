<?php

namespace App\Accounts;

use App\Models\Account;
use App\Models\Node;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Routes;

/**
 * What the ads below an element send, key by key: one value, or how many.
 *
 * @phpstan-type Sent array{count: int, values: list<string>, absent: int} count: different values, what is absent not
 *     counted; values: some of them; absent: ads that do not send the key
 */
final readonly class Sends
{
    /** Of what stands below one element so many ads are looked at; whether that was all is told. */
    public const LOOKED_AT = 300;

    private const SHOWN = 8; // values

    public function __construct(private Account $account) {}

    /**
     * @param list<int> $nodes elements of the account that are no ads
     * @param list<string> $keys
     * @return list<array{node: int, ads: int, keys: array<string, Sent>}> ads: that were looked at
     */
    public function below(array $nodes, array $keys): array
    {
        $routes = new Routes(
            StoredTexts::settings($this->account),
            Trees::hops($this->account),
            new TemplateReader(Trees::dialect($this->account)),
        );

        return array_map(fn (int $node): array => $this->of($node, $keys, $routes), $nodes);
    }

    /**
     * @param list<string> $keys
     * @return array{node: int, ads: int, keys: array<string, Sent>}
     */
    private function of(int $node, array $keys, Routes $routes): array
    {
        $ads = Node::query()
            ->where(['account_id' => $this->account->id, 'is_ad' => true])
            ->whereIntegerInRaw('parent_id', Branches::below($this->account, [$node]))
            ->orderBy('position')
            ->limit(self::LOOKED_AT)
            ->toBase()
            ->get();
        $branch = Branches::ofRows($this->account, $ads);
        $values = array_fill_keys($keys, []);
        $absent = array_fill_keys($keys, 0);
        foreach ($ads as $ad) {
            $path = $branch->path($ad->id);
            $sent = Show::arrived($routes->trace($path, SampleClick::of($path, $branch->keywords($ad->id))));
            foreach ($keys as $key) {
                if (isset($sent[$key])) {
                    $values[$key][$sent[$key]] = true;
                } else {
                    $absent[$key]++;
                }
            }
        }

        $told = [];
        foreach ($values as $key => $of) {
            $told[$key] = [
                'count' => count($of),
                'values' => array_map(strval(...), array_slice(array_keys($of), 0, self::SHOWN)),
                'absent' => $absent[$key],
            ];
        }

        return ['node' => $node, 'ads' => count($ads), 'keys' => $told];
    }
}
