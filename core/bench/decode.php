<?php

declare(strict_types=1);

// Times URLs read back against an account of many ads against tracing as many clicks, and the index that is made first
// against one check of the account.

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Decode\Decoder;
use Vestigon\Core\Decode\History;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Routes;
use Vestigon\Core\Trace\Settings;

require __DIR__.'/lib.php';

const TEXTS = 2_000; // a group each
const ADS = 500; // in each
const URLS = 10_000;
const MOST = 10.0;

$dialect = Shipped::dialect('northquay-search') ?? exit(1);
$nodes = ['a' => new Node('account', 'a', 'A')];
$parents = ['a' => null];
for ($i = 0; $i < TEXTS; $i++) {
    if ($i % 50 === 0) {
        $campaign = 'c'.intdiv($i, 50);
        $nodes[$campaign] = new Node('campaign', $campaign, "Campaign {$i}", 'text');
        $parents[$campaign] = 'a';
    }
    $suffix = "utm_source=northquay&utm_campaign=group-{$i}&utm_content={ad.id}&utm_term={term}&d={device}";
    $nodes["g{$i}"] = new Node('group', "g{$i}", "Group {$i}", null, ['suffix' => $suffix]);
    $parents["g{$i}"] = $campaign;
    for ($n = 0; $n < ADS; $n++) {
        $ad = (string) (7_000_000 + $i * ADS + $n);
        $landing = 'https://velmar.example/book/'.$i % 100;
        $nodes[$ad] = new Node('ad', $ad, "Ad {$n}", null, ['landing' => $landing]);
        $parents[$ad] = "g{$i}";
    }
}
$account = new Account($dialect, new Settings(clickId: true), [], $nodes, $parents);

$start = Bench::cpu();
$survey = new Survey($account, null, RuleBook::all([$dialect], ChannelsReader::shipped()));
foreach ($account->adNodes() as $key => $ad) {
    $survey->ad($ad, $parents[$key]);
}
$survey->findings();
$check = Bench::cpu() - $start;

$start = Bench::cpu();
$decoder = new Decoder(new History($account));
$index = Bench::cpu() - $start;

mt_srand(21);
$clicks = [];
for ($i = 0; $i < URLS; $i++) {
    $clicks[] = [
        (string) (7_000_000 + mt_rand(0, TEXTS * ADS - 1)),
        ['keyword.text' => "ferry & rail {$i}", 'device' => 'mobile', 'click.id' => "Q{$i}"],
    ];
}
$routes = new Routes($account->settings, [], new TemplateReader($dialect));
$urls = [];
$start = Bench::cpu();
foreach ($clicks as [$ad, $context]) {
    $urls[] = $routes->trace($account->pathTo($ad), $context)->landed;
}
$trace = Bench::cpu() - $start;
$start = Bench::cpu();
foreach ($urls as $i => $url) {
    $fits = $decoder->fits((string) $url);
    if (count($fits) !== 1 || $fits[0]->version->ad !== $clicks[$i][0]) {
        fwrite(STDERR, "{$url} was not read back\n");
        exit(1);
    }
}
$decode = Bench::cpu() - $start;
$ratio = $decode / $trace;
Bench::report('10,000 URLs read back among 1,000,000 ads, times tracing as many', $ratio, '<= 10', $ratio <= MOST);
$ratio = $index / $check;
Bench::report('the index for that, times one check of the account', $ratio, '<= 1', $ratio <= 1.0);
Bench::end();
