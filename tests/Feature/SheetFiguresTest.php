<?php

namespace Tests\Feature;

use Illuminate\Support\Facades\DB;
use Tests\SheetsIn;
use Tests\TestCase;

/** What a platform's report says of ads by day comes in as a sheet. */
final class SheetFiguresTest extends TestCase
{
    use SheetsIn;

    private const ADS = "Campaign ID,Campaign,Campaign type,Ad group ID,Ad ID,Ad,Final URL\r\n"
        ."71,Isles,text,702,7031,Deck A,https://velmar.example/a\r\n"
        ."71,Isles,text,702,7032,Deck B,https://velmar.example/b\r\n";

    public function test_figures_by_day_come_in_beside_the_ads(): void
    {
        $this->planned();
        $account = $this->begun($this->read($this->dropped(['ads.csv' => self::ADS])));
        $report = "Ad ID,Day,Keyword,Clicks,Impressions,Cost\r\n"
            ."7031,2026-10-05,a,3,40,\"1,044.50\"\r\n"
            ."7031,2026-10-05,b,2,9,0.505\r\n"
            ."7032,2026-10-05,a,1,5,2\r\n"
            ."7031,2026-10-06,a,7,70,7\r\n"
            ."99,2026-10-06,a,1,1,1\r\n";
        $intake = $this->dropped(['days.csv' => $report], ['account' => $account->id]);
        self::assertSame(
            ['id', 'day', 'keyword.text', 'clicks', 'impressions', 'cost'],
            array_column($intake['tables'][0]['columns'], 'means'),
        );
        $intake['tables'][0]['columns'][2]['means'] = 'ignore';
        $read = $this->read($intake);
        self::assertSame(
            ['ads' => 3, 'days' => 2, 'from' => '2026-10-05', 'to' => '2026-10-06', 'above' => 0],
            $read['counts']['figures'],
        );
        $this->begun($read);

        $kept = static fn (): array => DB::table('figures')->join('nodes', 'nodes.id', '=', 'node_id')
            ->orderBy('day')->orderBy('nodes.external_id')
            ->get(['day', 'external_id', 'clicks', 'impressions', 'cost', 'currency', 'conversions'])
            ->map(static fn (object $f): string => implode(' ', (array) $f))->all();
        self::assertSame(
            [
                '2026-10-05 7031 5 49 104501 EUR 0',
                '2026-10-05 7032 1 5 200 EUR 0',
                '2026-10-06 7031 7 70 700 EUR 0',
            ],
            $kept(),
            'rows of one ad and day are added up; an ad that nobody knows has none',
        );
        self::assertSame(0, DB::table('staged_figures')->count());
        self::assertSame(2, DB::table('result_days')->where('client_id', $this->client->id)->count());

        $more = "Ad ID,Day,Conversions\r\n7031,2026-10-05,2\r\n";
        $this->begun($this->read($this->dropped(['more.csv' => $more], ['account' => $account->id])));
        self::assertSame('2026-10-05 7031 5 49 104501 EUR 2', $kept()[0], 'what a report has no column for stays');
        $restated = ['days.csv' => strtr($report, ['0.505' => '0'])];
        $this->begun($this->read($this->dropped($restated, ['account' => $account->id])));
        self::assertSame('2026-10-05 7031 5 49 104450 EUR 2', $kept()[0], 'said again, the last counts');
    }

    public function test_figures_of_wider_elements_are_left_out_and_counted(): void
    {
        $this->planned();
        $report = "Campaign ID,Day,Clicks,Cost\r\n71,2026-10-05,3,1\r\n71,2026-10-06,3,1\r\n";
        $account = $this->begun($this->read($this->dropped(['ads.csv' => self::ADS])));
        $read = $this->read($this->dropped(['days.csv' => $report], ['account' => $account->id]));

        self::assertSame([0, 2], [$read['counts']['figures']['ads'], $read['counts']['figures']['above']]);
        $this->begun($read);
        self::assertSame(0, DB::table('figures')->count());
    }
}
