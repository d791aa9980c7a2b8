<?php

namespace App\Http\Controllers;

use App\Accounts\Branches;
use App\Accounts\Found;
use App\Accounts\Offers;
use App\Accounts\Proof;
use App\Accounts\SampleClick;
use App\Accounts\Show;
use App\Accounts\StoredTexts;
use App\Accounts\Trees;
use App\Agreements\Agreements;
use App\Dialects\Dialects;
use App\Http\Problem;
use App\Http\Requests\TraceRequest;
use App\Models\Account;
use App\Models\Client;
use App\Models\Node;
use App\Watching\ReportLine;
use Illuminate\Http\JsonResponse;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\Layer;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Findings\Campaigns;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Inspector;
use Vestigon\Core\Findings\Path\StaleLiteral;
use Vestigon\Core\Findings\Standing;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Provenance;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Settings;
use Vestigon\Core\Trace\Trace;

/** Traces an ad for any click, with texts as they are or as somebody tries them. */
final readonly class TraceController
{
    public function __construct(
        private Dialects $dialects,
        private Agreements $agreements,
        private ReportLine $line,
    ) {}

    public function __invoke(TraceRequest $request, Client $client, Node $node): JsonResponse
    {
        $wanted = $request->validated();
        if (! $node->is_ad) {
            return Problem::response(
                422,
                "{$node->name} is no ad. Pick one of the ads below it; only ads are clicked.",
            );
        }
        $account = $node->account;
        $branch = Branches::of($account, $node->id);
        $ids = $branch->ids($node->id);
        $path = self::trying($branch->path($node->id), $ids, $wanted['texts'] ?? []);
        $keywords = $branch->keywords($node->id);
        $sample = SampleClick::of($path, $keywords);
        $context = array_map(strval(...), $wanted['context'] ?? []) + $sample;
        $settings = StoredTexts::settings($account);
        $hops = Trees::hops($account);
        $trace = Route::once($path, $context, $settings, $hops);
        $plan = $client->plan()?->agreed();

        return new JsonResponse([
            'node' => $node->id,
            'account' => $account->id,
            'name' => $node->name,
            'type' => $path->campaignType(),
            'platform' => $path->dialect->title,
            'goneAt' => $node->gone_at?->toIso8601String(),
            'path' => array_map(
                static fn ($n, int $id): array => [
                    'id' => $id,
                    'level' => $path->dialect->level($n->level)->label ?? $n->level,
                    'name' => $n->name,
                    'externalId' => $n->id,
                ],
                $path->nodes,
                $ids,
            ),
            'strata' => self::strata($path, $ids),
            'offers' => Offers::on($path),
            'context' => $context,
            'fields' => SampleClick::fields($path, $keywords),
            'ribbon' => Show::ribbon($trace),
            'clickUrl' => $trace->clickUrl,
            'browserUrl' => $trace->browserUrl,
            'backgroundUrl' => $trace->backgroundUrl,
            'trail' => array_map(
                static fn (array $s): array => ['url' => $s[0], 'stop' => $s[1]->value],
                $trace->trail,
            ),
            'line' => $this->line->of($client, Show::landed($trace), $path, $plan),
            'arrival' => self::arrival($trace, $path, $plan, $context),
            'variant' => $plan === null ? null : self::variant($plan, $path),
            'verdict' => $plan === null ? null : self::verdict($path, $plan, $settings, $hops),
            'findings' => Found::show(
                $this->findings($path, $plan, $account, $settings, $hops),
                array_combine(array_map(static fn ($n): string => "{$n->level} {$n->id}", $path->nodes), $ids),
            ),
        ]);
    }

    /**
     * @param list<int> $ids
     * @param list<array{node: int, slot: string, custom?: string|null, text?: string|null}> $texts
     */
    private static function trying(Path $path, array $ids, array $texts): Path
    {
        $nodes = $path->nodes;
        foreach ($texts as $text) {
            $at = array_search((int) $text['node'], $ids, true);
            if ($at !== false) {
                $nodes[$at] =
                    $text['slot'] === 'custom'
                        ? $nodes[$at]->withCustom((string) ($text['custom'] ?? ''), $text['text'] ?? null)
                        : $nodes[$at]->withSlot(SlotKind::from($text['slot']), $text['text'] ?? null);
            }
        }

        return new Path($path->dialect, $nodes);
    }

    /**
     * @param list<Hop> $hops
     * @return list<Finding> what is wrong with the texts; what is wrong with clicks, the verdict says
     */
    private function findings(Path $path, ?Plan $plan, Account $account, Settings $settings, array $hops): array
    {
        $reader = new TemplateReader($path->dialect);
        $names = StaleLiteral::applies(new Standing($path, $settings, $reader, $plan));
        $campaigns = $names ? Campaigns::of(Trees::campaigns($account)) : new Campaigns();

        $rules = $this->dialects->rules($this->agreements->names($account->client_id));

        return (new Inspector($rules, $reader, $plan))->path(
            $path,
            $settings,
            $hops,
            $campaigns,
        );
    }

    /**
     * @param list<int> $ids
     * @return list<array<string, mixed>> one layer a level, the account first
     */
    private static function strata(Path $path, array $ids): array
    {
        $inheritance = new Inheritance($path);
        $layers = array_merge(...array_map($inheritance->layers(...), SlotKind::cases()));
        $strata = [];
        foreach ($path->nodes as $i => $node) {
            $own = array_values(array_filter($layers, static fn (Layer $l): bool => $l->node === $node));
            $strata[] = [
                'node' => $ids[$i],
                'level' => $path->dialect->level($node->level)->label ?? $node->level,
                'name' => $node->name,
                'slots' => array_values(
                    array_filter(
                        array_map(
                            static fn ($slot): ?string => in_array($node->level, $slot->levels, true)
                                ? $slot->kind->value
                                : null,
                            $path->dialect->slots,
                        ),
                    ),
                ),
                'texts' => array_map(
                    static fn (Layer $l): array => [
                        'slot' => $l->slot->value,
                        'text' => $l->text,
                        'state' => $l->state->value,
                        'why' => self::why($l, $path),
                    ],
                    $own,
                ),
                'custom' => array_map(
                    static fn (string|int $name, string $text): array => [
                        'name' => (string) $name,
                        'written' => ($path->dialect->customParameters->prefix ?? '').$name,
                        'text' => $text,
                    ],
                    array_keys($node->custom),
                    $node->custom,
                ),
            ];
        }

        return $strata;
    }

    /** @return array{title: string, for: string}|null the variant of the plan that counts for the ad, if any */
    private static function variant(Plan $plan, Path $path): ?array
    {
        $variant = $plan->variantFor($path);

        return $variant === null ? null : ['title' => $variant->title, 'for' => $variant->told()];
    }

    private static function why(Layer $layer, Path $path): ?string
    {
        return match ($layer->state->value) {
            'hidden' => 'hidden by the '
                .mb_strtolower($path->dialect->level($layer->hiddenBy->level ?? '')->label ?? 'narrower level')
                ."'s own {$layer->slot->value}",
            'type-ignores' => "{$path->campaignType()} campaigns don't read the {$layer->slot->value} here",
            'no-such-place' => "{$path->dialect->title} has no {$layer->slot->value} on this level",
            default => null,
        };
    }

    /**
     * @param array<string, string> $context
     * @return list<array<string, mixed>>
     */
    private static function arrival(Trace $trace, Path $path, ?Plan $plan, array $context): array
    {
        $truth =
            $plan === null
                ? null
                : Truth::of($plan, $path->dialect, $plan->lane($path), static fn (): bool => false);
        $expected = $truth?->values($context + $path->fields(false)) ?? [];
        if ($plan?->clickIdRequired && $path->dialect->clickId !== null) {
            $expected[$path->dialect->clickId->parameter] = $context['click.id'] ?? '';
        }
        $origins = Provenance::of($trace);
        $counts = array_count_values(array_map(static fn (array $p): string => $p[0], $trace->arrival));
        $rows = [];
        foreach ($trace->arrival as $i => [$key, $value]) {
            $rows[] = [
                'key' => $key,
                'value' => $value,
                'origin' => Show::origin($origins[$i]),
                'expected' => $expected[$key] ?? null,
                'verdict' => match (true) {
                    ! array_key_exists($key, $expected) => 'other',
                    $counts[$key] > 1 => 'twice',
                    $expected[$key] === $value => 'true',
                    default => 'wrong',
                },
            ];
        }
        foreach ($expected as $key => $value) {
            if (! isset($counts[$key])) {
                $rows[] = [
                    'key' => (string) $key,
                    'value' => null,
                    'origin' => null,
                    'expected' => $value,
                    'verdict' => 'missing',
                ];
            }
        }
        foreach ($truth->unmet ?? [] as $key => $reason) {
            if (! isset($counts[$key])) {
                $rows[] = [
                    'key' => (string) $key,
                    'value' => null,
                    'origin' => null,
                    'expected' => $reason,
                    'verdict' => 'unmet',
                ];
            }
        }

        return $rows;
    }

    /**
     * @param list<Hop> $hops
     * @return array<string, mixed>
     */
    private static function verdict(Path $path, Plan $plan, Settings $settings, array $hops): array
    {
        $prover = Prover::for(new CoreAccount($path->dialect, $settings, $hops, [], []), $plan);
        $verdict = $prover->verdict($path);

        return [
            'state' => $verdict->state->value,
            'clicks' => $verdict->clicks,
            'faults' => array_map(Proof::fault(...), $verdict->counterexamples),
        ];
    }
}
