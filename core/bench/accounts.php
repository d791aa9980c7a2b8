<?php

declare(strict_types=1);

// Checking accounts of 10,000, 100,000 and 1,000,000 ads with 2,000 different texts, row by row, against a plain pass over the same rows:
// reading each row from its file, decoding it and making it a node. Both sides take turns, a thousand rows each.

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Trace\Settings;

require __DIR__.'/lib.php';

const TEXTS = 2000;
const TURN = 1000;

$plan = PlanReader::read(new Cursor(['format' => 'vestigon.plan/1', 'id' => 'p', 'title' => 'P', 'clickId' => 'required', 'parameters' => [
    ['key' => 'utm_source', 'parts' => [['text' => 'northquay']]], ['key' => 'utm_medium', 'parts' => [['text' => 'cpc']]], ['key' => 'utm_campaign', 'parts' => [['field' => 'campaign.name']], 'shape' => 'slug'],
    ['key' => 'utm_term', 'parts' => [['field' => 'keyword.text']]], ['key' => 'utm_content', 'parts' => [['field' => 'ad.id']]],
]]));
$rules = RuleBook::all(array_values(Shipped::all()), ChannelsReader::shipped());

/** What stands above the ads: 50 to a group. */
$wide = static function (int $ads): Account {
    $nodes = ['A' => new Node('account', 'A', 'Account', null, ['suffix' => 'utm_source=northquay&utm_medium=cpc&utm_campaign={my.c}&utm_term={term}&utm_content={ad.id}'])];
    $parents = ['A' => null];
    for ($c = 0; $c < 20; $c++) {
        $nodes["c{$c}"] = new Node('campaign', "c{$c}", "Campaign {$c}", 'text', [], ['c' => "campaign_{$c}"]);
        $parents["c{$c}"] = 'A';
    }
    for ($g = 0; $g < intdiv($ads, 50); $g++) {
        $nodes["g{$g}"] = new Node('group', "g{$g}", "Group {$g}");
        $parents["g{$g}"] = 'c'.($g % 20);
    }

    return new Account(Shipped::dialect('northquay-search') ?? exit(1), new Settings, [], $nodes, $parents);
};

/** One ad in twenty says something wrong. */
$row = static function (int $i): string {
    $t = $i % TEXTS;
    $slots = ['landing' => "https://v.example/page/{$t}?lang=en".($t % 20 === 0 ? '&utm_source=old' : '')] + ($t % 100 === 1 ? ['suffix' => "utm_source=Northquay&x={$t}"] : []);

    return json_encode(['id' => "a{$i}", 'parent' => 'g'.intdiv($i, 50), 'name' => "Ad number {$i}", 'slots' => $slots], JSON_THROW_ON_ERROR)."\n";
};

$perAd = [];
foreach ([10_000, 100_000, 1_000_000] as $ads) {
    $file = tmpfile() ?: exit(1);
    for ($i = 0; $i < $ads; $i++) {
        fwrite($file, $row($i));
    }
    rewind($file);
    $account = $wide($ads);
    gc_collect_cycles();
    memory_reset_peak_usage();
    $before = memory_get_usage();
    $start = Bench::cpu();
    $survey = new Survey($account, $plan, $rules);
    $check = Bench::cpu() - $start;
    $plain = 0.0;
    $groups = [];
    for ($read = 0; $read < $ads; $read += TURN) {
        $at = (int) ftell($file);
        $start = Bench::cpu();
        for ($i = 0; $i < TURN; $i++) {
            $r = json_decode((string) fgets($file), true);
            $node = new Node('ad', $r['id'], $r['name'], null, $r['slots']);
            $groups[$r['parent']] = ($groups[$r['parent']] ?? 0) + strlen($node->slots['landing']);
        }
        $middle = Bench::cpu();
        $plain += $middle - $start;
        fseek($file, $at);
        $middle = Bench::cpu();
        for ($i = 0; $i < TURN; $i++) {
            $r = json_decode((string) fgets($file), true);
            $survey->ad(new Node('ad', $r['id'], $r['name'], null, $r['slots']), $r['parent']);
        }
        $check += Bench::cpu() - $middle;
    }
    $start = Bench::cpu();
    $found = count($survey->findings()) + count($survey->counterexamples());
    $check += Bench::cpu() - $start;
    $memory = (memory_get_peak_usage() - $before) / 1e6;
    $states = $survey->states();
    if (array_sum($states) !== $ads || $found === 0 || ($states['broken'] ?? 0) !== intdiv($ads * 6, 100)) {
        fwrite(STDERR, 'the check did not find what is there: '.json_encode($states)."\n");
        exit(1);
    }
    $perAd[] = $check / $ads;
    $what = number_format($ads).' ads, '.number_format(TEXTS).' texts';
    if ($ads === 1_000_000) {
        Bench::report("check of {$what}, times a plain pass over the same rows", $check / $plain, 'at most 5', $check / $plain <= 5);
        Bench::report("check of {$what}, MB of memory with all that stands above them", $memory + 1, 'under 512', $memory < 512);
    } else {
        printf("%-74s %8.2f\n", "check of {$what}, times a plain pass over the same rows", $check / $plain);
    }
    fclose($file);
}
Bench::report('time per ad of a million, times that of a hundred thousand', $perAd[2] / $perAd[1], 'at most 1.2', $perAd[2] <= 1.2 * $perAd[1]);
Bench::end();
