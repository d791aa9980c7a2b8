<?php

declare(strict_types=1);

// The click URL alone, on every shipped platform, against building the same URL by hand. And texts of doubled length:
// time must double, not more.

use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Findings\Inspector;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Settings;

require __DIR__.'/lib.php';

const CLICKS = 4000;
const ROUNDS = 7;

/** An ad of the platform with four of its tokens where it takes text. */
$ad = static function (Dialect $dialect): Path {
    $tokens = array_slice(
        array_values(
            array_filter(
                $dialect->tokens,
                static fn ($t): bool => $t->kind->value === 'value'
                    && $t->values === null
                    && $t->encode === 1
                    && $t->worksFor($dialect->campaignTypes[0]),
            ),
        ),
        0,
        4,
    );
    $query =
        'utm_source=x&utm_medium=cpc'
        .implode(
            '',
            array_map(
                static fn ($t, int $i): string => "&k{$i}=".$dialect->written($t->name),
                $tokens,
                array_keys($tokens),
            ),
        );
    $landing = 'https://velmar.example/book?lang=en';
    $suffix = $dialect->slot(SlotKind::Suffix);
    $template = $dialect->slot(SlotKind::Template);
    $nodes = [];
    foreach ($dialect->levels as $i => $level) {
        $slots = [];
        if ($level->role === Role::Ad) {
            $slots['landing'] = $suffix === null && $template === null ? "{$landing}&{$query}" : $landing;
        }
        if ($suffix !== null && $suffix->levels[0] === $level->id) {
            $slots['suffix'] = $query;
        } elseif ($suffix === null && $template !== null && $i === 0) {
            $slots['template'] = $dialect->written($dialect->rawLanding()->name ?? '').'&'.$query;
        }
        $nodes[] = new Node(
            $level->id,
            (string) (70 + $i),
            "Name & {$i}",
            $level->role === Role::Campaign ? $dialect->campaignTypes[0] : null,
            $slots,
        );
    }

    return new Path($dialect, $nodes);
};

$contexts = [];
for ($i = 0; $i < 500; $i++) {
    $contexts[] = [
        'keyword.text' => "ferry to {$i} skerry & back",
        'placement' => "left {$i}",
        'publisher.name' => "Gazette {$i}",
        'publisher.id' => "s{$i}",
        'page.url' => "https://g.example/{$i}",
        'surface' => 'stream',
        'device' => 'mobile',
        'click.id' => "Q7f-{$i}",
        'click.random' => (string) $i,
        'network' => 'search',
        'keyword.match' => 'exact',
    ];
}
foreach (Shipped::all() as $dialect) {
    $path = $ad($dialect);
    $route = Route::of($path);
    // by hand: the texts between the values are known beforehand, the values are encoded and put between them
    $fields = $path->fields($dialect->namesFreeze);
    $steps = [];
    $text = '';
    foreach ($route->trace($contexts[0])->segments as $s) {
        if (
            $s->origin->field === null
            || ! isset(($contexts[0] + $fields)[$s->origin->field])
            || $s->text === ''
            || str_ends_with($s->text, '=')
            || $s->text === '&'
            || $s->text === '?'
        ) {
            $text .= $s->text;
        } else {
            $steps[] = [$text, $s->origin->field];
            $text = '';
        }
    }
    $tail = $text;
    $plus = $dialect->assembly->plusForSpace;
    $byHand = static function (array $c) use ($steps, $tail, $fields, $plus): string {
        $url = '';
        foreach ($steps as [$before, $field]) {
            $value = rawurlencode($c[$field] ?? $fields[$field]);
            $url .= $before.($plus ? str_replace('%20', '+', $value) : $value);
        }

        return $url.$tail;
    };
    foreach ($contexts as $c) {
        if ($byHand($c) !== $route->clickUrl($c)) {
            fwrite(
                STDERR,
                "{$dialect->id}: the sides do not compute the same:\n{$byHand($c)}\n{$route->clickUrl($c)}\n",
            );
            exit(1);
        }
    }
    $time = static function (Closure $side) use ($contexts): float {
        $start = hrtime(true);
        for ($i = 0; $i < CLICKS; $i++) {
            $side($contexts[$i % 500]);
        }

        return (hrtime(true) - $start) / 1e9;
    };
    $ratios = [];
    for ($round = 0; $round < ROUNDS; $round++) {
        $hand = $time($byHand);
        $ratios[] = $time($route->clickUrl(...)) / $hand;
    }
    Bench::report(
        "click URL on {$dialect->id}, times concatenation by hand",
        Bench::median($ratios),
        'at most 5',
        Bench::median($ratios) <= 5,
    );
}

$dialect = Shipped::dialect('northquay-search') ?? exit(1);
$rules = RuleBook::all(array_values(Shipped::all()), ChannelsReader::shipped());
$seconds = static function (string $text) use ($dialect, $rules): float {
    $path = new Path($dialect, [
        new Node('account', 'A', 'A'),
        new Node('ad', '1', 'Ad', null, ['suffix' => $text, 'landing' => 'https://v.example/']),
    ]);
    $start = Bench::cpu();
    $reader = new TemplateReader($dialect);
    $inspector = new Inspector($rules, $reader);
    $route = Route::of($path, reader: $reader);
    $trace = $route->trace([]);
    $inspector->path($path, new Settings());
    $inspector->click($path, $trace, [], new Settings(), $route->page([]));

    return Bench::cpu() - $start;
};
$worst = 0.0;
$which = '';
foreach (
    [
        '{phone-only:',
        '{',
        '{term}',
        '&utm_sorce=A b',
        '?',
        '#',
        '%25',
        '{my.x',
        '+44 ',
        'a',
        'a@',
        '(:a',
        "\xFF",
        '&a=[post:id]',
    ] as $piece
) {
    $ratios = [];
    for ($round = 0; $round < 3; $round++) {
        $once = $seconds(str_repeat($piece, 20_000));
        $ratios[] = $seconds(str_repeat($piece, 40_000)) / max($once, 0.004);
    }
    if (Bench::median($ratios) > $worst) {
        [$worst, $which] = [Bench::median($ratios), $piece];
    }
}
Bench::report(
    'reading, tracing and finding in a text twice as long, times the time ('
        .trim((string) json_encode($which, JSON_INVALID_UTF8_SUBSTITUTE), '"')
        .')',
    $worst,
    'at most 3',
    $worst <= 3,
);
Bench::end();
