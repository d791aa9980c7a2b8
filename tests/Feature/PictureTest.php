<?php

namespace Tests\Feature;

use App\Accounts\Picture;
use App\Accounts\Proof;
use App\Models\Account;
use App\Models\Node;
use App\Support\Bulk;
use Illuminate\Support\Facades\DB;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\TestCase;

/** The picture of an account, however large, and the counts that it is drawn from. */
final class PictureTest extends TestCase
{
    /** An account with very many campaigns that say nothing, some of them large. */
    private function wide(int $campaigns): Account
    {
        $account = $this->imported();
        $root = $account->nodes()->whereNull('parent_id')->firstOrFail();
        Node::query()->where('account_id', $account->id)->whereKeyNot($root->id)->update(['ads' => 0]);
        $random = new Randomizer(new Mt19937(3));
        $rows = [];
        for ($i = 0; $i < $campaigns; $i++) {
            $ads = $i % 500 === 0 ? 20_000 : $random->getInt(0, 60);
            $rows[] = [
                'account_id' => $account->id,
                'parent_id' => $root->id,
                'level' => 'campaign',
                'depth' => 1,
                'position' => 10_000 + $i,
                'external_id' => "wide-{$i}",
                'name' => "Campaign {$i}",
                'version' => 1,
                'import_id' => 0,
                'is_ad' => false,
                'ads' => $ads,
                'broken' => $ads,
            ];
        }
        foreach (array_chunk($rows, 1000) as $some) {
            Node::query()->insert($some);
        }
        $all = array_sum(array_column($rows, 'ads'));
        $root->update(['ads' => $all, 'broken' => $all]);

        return $account;
    }

    public function test_every_ad_of_fifteen_thousand_campaigns_is_in_it_and_it_stays_small(): void
    {
        $account = $this->wide(15_000);
        DB::enableQueryLog();
        $cells = Picture::of($account, null);
        self::assertLessThan(8, count(DB::getQueryLog()));
        self::assertLessThan(300, count($cells));
        $campaigns = array_filter($cells, static fn (array $c): bool => $c['depth'] === 1);
        self::assertSame($cells[0]['ads'], array_sum(array_column($campaigns, 'ads')));
        self::assertSame($cells[0]['broken'], array_sum(array_column($campaigns, 'broken')));
        $large = array_filter($campaigns, static fn (array $c): bool => $c['ads'] === 20_000 && $c['many'] === 1);
        self::assertCount(30, $large, 'what can be seen stands by itself');
        self::assertSame(
            Node::query()->where('account_id', $account->id)->where('level', 'campaign')->where('ads', '>', 0)->count(),
            array_sum(array_column($campaigns, 'many')),
        );
    }

    public function test_a_band_is_looked_into_until_its_elements_stand_by_themselves(): void
    {
        $account = $this->wide(15_000);
        [$root, $band] = [Picture::of($account, null)[0]['id'], null];
        for ($zoom = 0; $zoom < 4; $zoom++) {
            $cells = array_values(array_filter(
                Picture::of($account, $root, $band === null ? null : [$band['from'], $band['to']]),
                static fn (array $c): bool => $c['depth'] === 1,
            ));
            if ($band !== null) {
                self::assertSame($band['ads'], array_sum(array_column($cells, 'ads')));
                self::assertSame($band['many'], array_sum(array_column($cells, 'many')));
                self::assertSame([$band['from'], $band['to']], [$cells[0]['from'], end($cells)['to']]);
            }
            $bands = array_values(array_filter($cells, static fn (array $c): bool => $c['many'] > 1));
            if ($bands === []) {
                self::assertGreaterThan(1, $zoom);

                return;
            }
            usort($bands, static fn (array $a, array $b): int => $b['many'] <=> $a['many']);
            $band = $bands[0];
            $path = "/accounts/{$account->id}/picture?root={$root}&from={$band['from']}&to={$band['to']}";
            self::assertSame($band['ads'], $this->api('GET', $path)->assertOk()->json('items.0.ads'));
        }
        self::fail('after four steps there are still bands');
    }

    public function test_what_is_counted_above_is_what_is_below(): void
    {
        $account = $this->imported();
        $this->planned();
        $proof = $this->app->make(Proof::class);
        foreach (['first', 'again'] as $time) {
            self::assertTrue($proof->refresh($account->refresh()));
            $nodes = Node::query()->where('account_id', $account->id)->get()->keyBy('id');
            $below = [];
            foreach ($nodes->where('is_ad', true) as $ad) {
                for ($at = $ad->parent_id; $at !== null; $at = $nodes[$at]->parent_id) {
                    $below[$at]['ads'] = ($below[$at]['ads'] ?? 0) + 1;
                    $below[$at][$ad->state] = ($below[$at][$ad->state] ?? 0) + 1;
                }
            }
            foreach ($nodes->where('is_ad', false) as $node) {
                foreach (['ads', 'proven', 'broken', 'untracked'] as $what) {
                    $wanted = $below[$node->id][$what] ?? 0;
                    self::assertSame($wanted, (int) $node->{$what}, "{$time} {$node->name} {$what}");
                }
            }
            // an ad less, and a count that is wrong: the next proof puts it right
            $nodes->firstWhere('is_ad', true)?->delete();
            Node::query()->where('account_id', $account->id)->where('is_ad', false)->update(['proven' => 77]);
        }
    }

    public function test_a_proof_writes_nothing_where_nothing_is_new(): void
    {
        $account = $this->imported();
        $this->planned();
        $proof = $this->app->make(Proof::class);
        $proof->refresh($account->refresh());
        DB::enableQueryLog();
        $proof->refresh($account->refresh());
        $writes = array_filter(
            array_column(DB::getQueryLog(), 'query'),
            static fn (string $sql): bool => str_starts_with($sql, 'update nodes'),
        );
        self::assertSame([], array_values($writes));
    }

    public function test_many_rows_are_set_in_one_statement_with_whatever_is_in_them(): void
    {
        $account = $this->imported();
        $ids = $account->nodes()->pluck('id')->all();
        $values = ["it's \"so\" \\ far", '‰ ŝ 🛳', '[null]', null, ''];
        $rows = array_map(
            static fn (int $id, int $i): array => ['id' => $id, 'fault' => $values[$i % 5], 'version' => $i],
            $ids,
            array_keys($ids),
        );
        Bulk::update('nodes', ['fault' => 'varchar(500)', 'version' => 'int unsigned'], $rows);
        Bulk::update('nodes', ['fault' => 'varchar(500)'], []);
        foreach ($rows as $row) {
            $node = Node::query()->findOrFail($row['id']);
            self::assertSame([$row['fault'], $row['version']], [$node->fault, $node->version]);
        }
    }
}
