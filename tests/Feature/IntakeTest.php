<?php

namespace Tests\Feature;

use App\Dialects\Dialects;
use App\Models\Import;
use App\Models\Intake;
use App\Models\Node;
use App\Models\Role;
use App\Models\Text;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\SheetsIn;
use Tests\TestCase;

/** Sheets of a platform come in: understood, looked at, then imported; and nothing before a person says so. */
final class IntakeTest extends TestCase
{
    use SheetsIn;

    private const ADS = "Report of September\r\n\r\n"
        ."Campaign ID,Campaign,Campaign type,Ad group ID,Ad group,Ad ID,Ad,Final URL,Tracking,URL suffix,Status\r\n"
        ."71,Isles,text,702,Foot,7031,Deck A,https://velmar.example/a,,utm_source=x&utm_term={term},Active\r\n"
        ."71,Isles,text,702,Foot,7032,Deck B,https://velmar.example/b,,,Paused\r\n"
        ."72,Coves,text,703,Car,7033,Deck C,https://velmar.example/c,{landing}?a=1,,Active\r\n"
        ."Total,,,,,,,,,,\r\n";

    public function test_an_export_is_understood_before_anything_is_stored(): void
    {
        $intake = $this->dropped(['ads.csv' => self::ADS]);

        $table = $intake['tables'][0];
        self::assertSame(['ads', 3, 'suggested', 'ad'], [
            $table['title'],
            $table['headingRow'],
            $table['from'],
            $table['level'],
        ]);
        self::assertSame(['csv', ',', 'UTF-8'], array_slice(array_values($table['form']), 0, 3));
        self::assertSame(
            ['campaign.id', 'campaign.name', 'campaign.type', 'group.id', 'group.name', 'id', 'name', 'slot.landing',
                'slot.template', 'slot.suffix', 'standing'],
            array_column($table['columns'], 'means'),
        );
        self::assertSame(['Active' => 'on', 'Paused' => 'paused'], $table['columns'][10]['values']);
        self::assertSame(0, Node::query()->count());

        $read = $this->read($intake);
        self::assertSame('read', $read['status']);
        self::assertSame(
            ['rows' => 3, 'totals' => 1, 'new' => 7, 'changed' => 0, 'same' => 0],
            array_slice($read['counts'], 0, 5),
        );
        self::assertSame([], $read['counts']['problems']);
        self::assertSame(0, Node::query()->count(), 'nothing is stored yet');
    }

    public function test_what_was_read_is_imported_and_proven(): void
    {
        $this->planned();
        $account = $this->begun($this->read($this->dropped(['ads.csv' => self::ADS])));

        self::assertSame(8, Node::query()->where('account_id', $account->id)->count());
        self::assertSame(
            ['landing' => 'https://velmar.example/a', 'suffix' => 'utm_source=x&utm_term={term}'],
            self::texts('7031'),
        );
        self::assertSame('paused', Node::query()->where('external_id', '7032')->value('standing'));
        self::assertSame(3, $account->refresh()->nodes()->where('depth', 0)->value('ads'));
        self::assertSame(
            ['broken', 'untracked', 'untracked'],
            $account->nodes()->where('is_ad', true)->pluck('state')->all(),
        );
        self::assertSame('Our export', $this->client->sheetMaps()->value('title'));
        self::assertSame(0, DB::table('staged')->count(), 'what was kept on the way is not any more');
        self::assertDirectoryDoesNotExist(Intake::query()->firstOrFail()->folder());
    }

    public function test_an_account_document_comes_in_as_a_sheet_does(): void
    {
        $node = static fn (string $level, string $id, ?string $parent, array $more = []): array => array_filter(
            ['level' => $level, 'id' => $id, 'name' => "The {$id}", 'parent' => $parent, ...$more],
        );
        $document = [
            'format' => 'vestigon.account/1',
            'dialect' => 'northquay-search',
            'nodes' => [
                $node('ad', '9', '7', ['slots' => ['landing' => 'https://velmar.example/a'], 'standing' => 'paused']),
                $node('account', 'NQ-900', null, ['slots' => ['suffix' => 'utm_source=x']]),
                $node('campaign', '71', 'NQ-900', ['type' => 'text', 'custom' => ['season' => 'spring; early = ok']]),
                $node('group', '7', '71'),
            ],
            'settings' => ['clickId' => true],
        ];
        $this->planned();
        $intake = $this->dropped(['all.json' => json_encode($document, JSON_PRETTY_PRINT)]);

        self::assertSame(
            ['id', 'name', 'type', 'standing', 'publishedName', 'account.id', 'campaign.id', 'group.id',
                'slot.landing', 'slot.suffix', 'custom.season', 'setting.clickId'],
            array_column($intake['tables'][0]['columns'], 'means'),
        );
        $read = $this->read($intake);
        self::assertSame([], $read['counts']['problems']);
        $account = $this->begun($read);
        self::assertSame(
            ['account clickId', 'account suffix', 'campaign season', 'ad landing'],
            DB::table('texts')->join('nodes', 'nodes.id', '=', 'texts.node_id')->whereNull('until')
                ->where('account_id', $account->id)->orderBy('depth')->orderBy('kind')
                ->get(['level', 'kind', 'texts.name'])
                ->map(static fn (object $t): string => "{$t->level} ".($t->name ?: $t->kind))->all(),
        );
        self::assertSame('paused', Node::query()->where(['level' => 'ad', 'external_id' => '9'])->value('standing'));
        $group = Node::query()->where(['level' => 'ad', 'external_id' => '9'])->value('parent_id');
        self::assertSame('7', Node::query()->whereKey($group)->value('external_id'));
    }

    public function test_a_broken_account_document_is_refused_with_its_place(): void
    {
        $start = '{"format":"vestigon.account/1","dialect":"northquay-search",';
        foreach (
            [
                $start.'"nodes":[{"level":"ad","id":"1"},{"level":"ad"}]}' => '[1].id',
                $start.'"nodes":[{"level":"ad","id":"1"' => '[0]',
                $start.'"nodes":{}}' => 'no list "nodes"',
                $start.'"nodes":[{"level":"ad","id":"1"}]' => 'behind the list "nodes"',
                $start.'"settings":{"clickId":"yes"},"nodes":[{"level":"ad","id":"1"}]}' => 'settings.clickId',
            ] as $json => $says
        ) {
            $look = $this->dropped(['all.json' => $json])['tables'][0];
            self::assertStringContainsString($says, (string) $look['problem'], $json);
        }
    }

    public function test_the_same_file_again_changes_nothing_and_its_map_is_known(): void
    {
        $account = $this->begun($this->read($this->dropped(['ads.csv' => self::ADS])));
        $texts = Text::query()->count();
        $intake = $this->dropped(['ads.csv' => self::ADS], ['account' => $account->id]);
        self::assertSame('kept as “Our export”', $intake['tables'][0]['from']);

        $read = $this->read($intake);
        self::assertSame(['new' => 0, 'changed' => 0, 'same' => 7], array_slice($read['counts'], 2, 3));
        $this->begun($read, ['ad' => true, 'campaign' => true, 'group' => true]);
        self::assertSame($texts, Text::query()->count());
        self::assertSame(0, Node::onlyTrashed()->count());
    }

    public function test_words_in_cells_are_kept_with_the_map(): void
    {
        $cells = ['decimal' => ',', 'blank' => ['n/a'], 'totals' => ['Summe']];
        $sheet = strtr(self::ADS, ['Total,' => 'Summe,', ',Deck B,' => ',n/a,']);
        $this->planned();
        $read = $this->read($this->dropped(['ads.csv' => $sheet]), ['cells' => $cells]);

        self::assertSame([3, 1], [$read['counts']['rows'], $read['counts']['totals']]);
        $account = $this->begun($read);
        self::assertSame('', Node::query()->where('external_id', '7032')->value('name'));

        $again = $this->dropped(['ads.csv' => $sheet], ['account' => $account->id]);
        self::assertSame('kept as “Our export”', $again['tables'][0]['from']);
        self::assertSame($cells, $again['cells']);
        self::assertSame(7, $this->read($again, ['cells' => $again['cells']])['counts']['same']);
    }

    public function test_what_is_missing_is_gone_only_where_a_person_says_that_all_is_there(): void
    {
        $account = $this->begun($this->read($this->dropped(['ads.csv' => self::ADS])));
        $less = str_replace(
            "72,Coves,text,703,Car,7033,Deck C,https://velmar.example/c,{landing}?a=1,,Active\r\n",
            '',
            self::ADS,
        );

        $read = $this->read($this->dropped(['ads.csv' => $less], ['account' => $account->id]));
        self::assertSame(
            [
                ['campaign', 2, 1, false],
                ['group', 2, 1, false],
                ['ad', 3, 1, false],
            ],
            array_map(
                static fn (array $l): array => [$l['level'], $l['known'], $l['missing'], $l['whole']],
                $read['counts']['levels'],
            ),
            'more than a fifth would be lost: that is not suggested',
        );
        $this->begun($read);
        self::assertSame(0, Node::onlyTrashed()->count());

        $read = $this->read($this->dropped(['ads.csv' => $less], ['account' => $account->id]));
        $this->begun($read, ['campaign' => true]);
        self::assertSame(
            ['72', '703', '7033'],
            Node::onlyTrashed()->orderBy('depth')->pluck('external_id')->all(),
            'with all that stands below it',
        );
        self::assertSame(['landing', 'template'], array_keys($this->textsEver('7033')), 'its texts are kept');

        $read = $this->read($this->dropped(['ads.csv' => self::ADS], ['account' => $account->id]));
        self::assertSame(3, $read['counts']['changed'], 'they come back');
        $this->begun($read);
        self::assertSame(0, Node::onlyTrashed()->count());
    }

    /** @return array<string, string> */
    private function textsEver(string $number): array
    {
        return Text::query()
            ->whereIn('node_id', Node::withTrashed()->where('external_id', $number)->select('id'))
            ->orderBy('kind')
            ->pluck('text', 'kind')
            ->all();
    }

    public function test_a_mapped_empty_cell_clears_a_text_and_a_column_that_is_not_there_leaves_it(): void
    {
        $account = $this->begun($this->read($this->dropped(['ads.csv' => self::ADS])));
        $sheet = "Campaign ID,Ad group ID,Ad ID,URL suffix\r\n71,702,7031,\r\n";

        $read = $this->read($this->dropped(['some.csv' => $sheet], ['account' => $account->id]));
        self::assertSame(1, $read['counts']['changed']);
        $this->begun($read);
        self::assertSame(['landing' => 'https://velmar.example/a'], self::texts('7031'));
        self::assertSame('Deck A', Node::query()->where('external_id', '7031')->value('name'));
    }

    public function test_rows_with_errors_are_left_out_and_told_with_their_place(): void
    {
        $sheet = self::ADS."71,Isles,text,702,Foot,1.2E+11,Deck D,https://velmar.example/d,,,Active\r\n"
            ."71,Isles,sound,702,Foot,7035,Deck E,https://velmar.example/e,,,Asleep\r\n";
        $read = $this->read($this->dropped(['ads.csv' => $sheet]));

        self::assertSame(['damaged-number' => 1, 'unknown-word' => 2], $read['counts']['problems']);
        $problems = $this->api('GET', "/intakes/{$read['id']}/problems")->json('items');
        self::assertSame(
            [['damaged-number', 8, 'Ad ID'], ['unknown-word', 9, 'Campaign type'], ['unknown-word', 9, 'Status']],
            array_map(static fn (array $p): array => [$p['code'], $p['row'], $p['column']], $problems),
        );
        self::assertCount(1, $this->api('GET', "/intakes/{$read['id']}/problems?code=damaged-number")->json('items'));
        $taken = $this->api('GET', "/intakes/{$read['id']}/problems/file?as=csv")->assertOk()->streamedContent();
        self::assertStringContainsString('ads,8,"Ad ID",damaged-number', $taken);

        $rows = $this->api('GET', "/intakes/{$read['id']}/problems/file?as=rows")->assertOk()->streamedContent();
        $lines = explode("\r\n", trim($rows));
        self::assertCount(5, $lines, 'what is above, the headings, and the rows with errors');
        self::assertStringEndsWith(',"what is wrong"', $lines[2]);
        self::assertStringContainsString('Deck E', $lines[4]);
        self::assertStringContainsString('what “sound” means', $lines[4]);
        $mended = str_replace(['1.2E+11', 'sound', 'Asleep'], ['7034', 'text', 'Active'], $rows);
        $this->sent($read['id'], 'mended.csv', $mended);
        $read = $this->read($this->api('GET', "/intakes/{$read['id']}")->json());
        self::assertSame(['damaged-number' => 1, 'unknown-word' => 2], $read['counts']['problems'], 'the first’s');

        $this->begun($read);
        self::assertSame(5, Node::query()->where('is_ad', true)->count(), 'all are in, the mended ones too');
    }

    public function test_several_files_are_one_account_whatever_their_order(): void
    {
        $intake = $this->dropped([
            'ads.csv' => "Ad ID;Ad;Ad group ID;Link\r\n9;Deck;702;https://v.example/a\r\n",
            'groups.csv' => "Ad group ID;Ad group;Campaign ID;Campaign\r\n702;Foot;71;Isles\r\n",
        ]);
        self::assertSame([';', ';'], array_column(array_column($intake['tables'], 'form'), 'delimiter'));
        $this->begun($this->read($intake));

        $ad = Node::query()->where('external_id', '9')->firstOrFail();
        $group = Node::query()->findOrFail($ad->parent_id);
        self::assertSame(['702', 'Foot'], [$group->external_id, $group->name]);
        self::assertSame('71', Node::query()->where('id', $group->parent_id)->value('external_id'));
    }

    public function test_what_stands_below_something_without_a_place_is_left_out_with_it(): void
    {
        $files = [
            'ads.csv' => "Ad ID;Ad;Ad group ID;Link\r\n9;Deck;702;https://v.example/a\r\n"
                ."10;Lost;799;https://v.example/b\r\n",
            'groups.csv' => "Ad group ID;Ad group;Campaign ID;Campaign\r\n702;Foot;71;Isles\r\n",
        ];
        foreach ([['new' => 3, 'same' => 0], ['new' => 0, 'same' => 3]] as $counts) {
            $read = $this->read($this->dropped($files));
            self::assertSame($counts, array_intersect_key($read['counts'], $counts));
            self::assertSame(2, $read['counts']['left'], 'the group that nobody says the place of, and its ad');
            self::assertSame(['no-parent' => 1], $read['counts']['problems']);
            $this->begun($read);
            self::assertSame(['9'], Node::query()->where('is_ad', true)->pluck('external_id')->all());
        }
    }

    public function test_a_platform_of_one_s_own_takes_sheets_like_a_shipped_one(): void
    {
        $own = ['id' => 'lantern', 'title' => 'Lantern'] + (array) Dialects::shippedDocument('northquay-search');
        $this->app->make(Dialects::class)->save($this->client, $own, 0, $this->editor->id);
        $this->planned();

        $account = $this->begun(
            $this->read($this->dropped(['ads.csv' => self::ADS], ['dialect' => 'lantern'])),
        );
        self::assertSame('lantern', $account->dialect);
        $change = $this->inLine($account);
        self::assertGreaterThan(0, $change->writes()->count());
        $ad = $account->nodes()->where('is_ad', true)->firstOrFail();
        self::assertSame(
            'https://velmar.example/a',
            strtok($this->api('POST', "/nodes/{$ad->id}/trace", [])->assertOk()->json('clickUrl'), '?'),
        );
        $this->api('GET', "/accounts/{$account->id}/picture")->assertOk();
        $this->api('POST', "/connections/{$account->connection_id}/imports")->assertStatus(422);
        $this->api('DELETE', '/platforms/lantern')->assertStatus(409);
        $this->dropped([], ['dialect' => 'lantern', 'number' => 'other']);
        $this->api('DELETE', '/platforms/lantern')
            ->assertStatus(409)
            ->assertJsonPath('message', 'Sheets of this platform are being brought in. Give them up first.');
        $renamed = strtr((string) json_encode($own), ['"role":"group"' => '"role":"group"', '"group"' => '"bunch"']);
        $this->api('PUT', '/platforms', ['text' => $renamed, 'revision' => 1])
            ->assertStatus(422)
            ->assertJsonPath('message', 'levels: "group" is missing, and accounts have elements of it');
    }

    public function test_parts_come_in_order_and_go_on_where_they_were(): void
    {
        $id = $this->dropped([])['id'];
        $new = ['name' => 'a.csv', 'bytes' => strlen(self::ADS)];
        $file = $this->api('POST', "/intakes/{$id}/files", $new)->json('id');
        $put = fn (int $from, string $some): int => $this->api('PUT', "/intakes/{$id}/files/{$file}", [
            'from' => $from,
            'content' => base64_encode($some),
        ])->json('received');

        self::assertSame(10, $put(0, substr(self::ADS, 0, 10)));
        self::assertSame(10, $put(20, 'lost'), 'what is not next is not taken');
        self::assertSame(10, $put(0, substr(self::ADS, 0, 10)), 'nor is what came twice');
        $this->api('PUT', "/intakes/{$id}/files/{$file}", ['from' => 10, 'content' => '!'])->assertStatus(422);
        self::assertSame([], $this->api('GET', "/intakes/{$id}")->json('tables'));
        self::assertSame(strlen(self::ADS), $put(10, substr(self::ADS, 10)));
        self::assertCount(11, $this->api('GET', "/intakes/{$id}")->json('tables.0.columns'));
    }

    public function test_two_at_once_are_told_and_nothing_is_overwritten(): void
    {
        $intake = $this->dropped(['ads.csv' => self::ADS]);
        $read = $this->read($intake);
        $this->api('PUT', "/intakes/{$intake['id']}/reading", [
            'revision' => $intake['revision'],
            'title' => 'x',
            'tables' => [['title' => 'ads', 'use' => true, 'columns' => [['heading' => 'Ad ID', 'means' => 'id']]]],
        ])->assertStatus(409);
        $this->api('POST', "/intakes/{$intake['id']}/import", ['revision' => $intake['revision'], 'whole' => []])
            ->assertStatus(409);
        $this->begun($read);
        $this->api('POST', "/intakes/{$intake['id']}/import", ['revision' => $read['revision'], 'whole' => []])
            ->assertStatus(409);
        self::assertSame(1, Import::query()->count());
        $this->api('DELETE', "/intakes/{$intake['id']}")->assertStatus(409);
    }

    public function test_what_is_given_up_leaves_nothing_behind(): void
    {
        $intake = $this->read($this->dropped(['ads.csv' => self::ADS]));
        $folder = Intake::query()->findOrFail($intake['id'])->folder();
        self::assertDirectoryExists($folder);
        self::assertSame([$intake['id']], array_column($this->api('GET', '/intakes')->json('items'), 'id'));

        $this->api('DELETE', "/intakes/{$intake['id']}")->assertStatus(204);
        self::assertDirectoryDoesNotExist($folder);
        self::assertSame(0, DB::table('staged')->count());
        self::assertSame(0, Node::query()->count());
    }

    public function test_an_account_that_its_platform_delivers_is_not_taken_from_sheets(): void
    {
        $account = $this->imported();
        $this->api('POST', '/intakes', ['dialect' => 'northquay-search', 'account' => $account->id])
            ->assertStatus(422)
            ->assertJsonPath('message', "{$account->name} comes from Northquay Search itself. Import it there.");
    }

    /** @return iterable<string, array{string, string, string}> name, content, what is said */
    public static function badFiles(): iterable
    {
        yield 'a picture' => ['ads.csv', "\x89PNG\r\n\x1a\n", 'ads.csv is no table'];
        yield 'a document' => ['ads.pdf', '%PDF-1.7', 'ads.pdf is no table'];
        yield 'a locked or old workbook' => ['a.xls', "\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1", 'locked with a password'];
        yield 'a broken zip' => ['a.xlsx', "PK\x03\x04broken", 'is broken'];
        yield 'bytes' => ['a.csv', "ab\0\1\2\0cd", 'a.csv is no table'];
        yield 'a broken pack' => ['a.csv.gz', "\x1F\x8Bnothing of the kind", 'is empty'];
        yield 'too many columns' => ['a.csv', str_repeat('a,', 600)."b\n", 'has 601 columns'];
        yield 'a cell of a megabyte' => ['a.csv', "a,b\n\"".str_repeat('x', 1_100_000), 'a cell of more than 1 MB'];
    }

    #[DataProvider('badFiles')]
    public function test_a_file_that_is_no_table_says_why(string $name, string $content, string $says): void
    {
        $intake = $this->dropped([$name => $content]);

        self::assertStringContainsString($says, $intake['tables'][0]['problem']);
        self::assertFalse($intake['tables'][0]['use']);
    }

    public function test_an_empty_file_is_refused(): void
    {
        $id = $this->dropped([])['id'];
        $this->api('POST', "/intakes/{$id}/files", ['name' => 'a.csv', 'bytes' => 0])
            ->assertStatus(422)
            ->assertJsonPath('message', 'The file is empty.');
    }

    public function test_only_headings_and_no_headings_are_said(): void
    {
        $read = $this->read($this->dropped(['a.csv' => "Ad ID,Ad group ID,Campaign ID\n"]));
        self::assertSame([0, 0], [$read['counts']['rows'], $read['counts']['new']]);

        $intake = $this->dropped(['a.csv' => "1,2\n3,4\n"], ['number' => 'NQ-901']);
        self::assertNull($intake['tables'][0]['headingRow']);
    }

    public function test_only_editors_bring_sheets_in(): void
    {
        $viewer = $this->member(Role::Viewer, $this->client);
        $this->api('POST', '/intakes', ['dialect' => 'mossfeed', 'number' => '1', 'name' => 'x'], $viewer)
            ->assertStatus(403);
        self::assertSame(0, Intake::query()->count());
    }
}
