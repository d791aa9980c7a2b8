<?php

namespace App\Http\Controllers;

use App\Accounts\Branches;
use App\Accounts\SampleClick;
use App\Accounts\Trees;
use App\Agreements\Agreements;
use App\Agreements\InVariants;
use App\Arrivals\Matching;
use App\Http\Problem;
use App\Jobs\ProveAccount;
use App\Models\Change;
use App\Models\Client;
use App\Models\Node;
use App\Watching\PlanKeys;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Channel\Channels;
use Vestigon\Core\Channel\Counted;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Plan\Choice;
use Vestigon\Core\Plan\Fields;
use Vestigon\Core\Plan\Lane;
use Vestigon\Core\Plan\Means;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Plan\Shape;
use Vestigon\Core\Plan\Truth;

final class PlanController
{
    private const SAMPLES = 12;

    /** Roles whose names can have parts. */
    public function __construct(
        private readonly Agreements $agreements,
        private readonly Matching $matching,
        private readonly PlanKeys $planKeys,
    ) {}

    public function show(Client $client): JsonResponse
    {
        $plan = $client->lastPlan();

        return new JsonResponse([
            'revision' => $plan->revision ?? 0,
            'document' => $plan?->document,
            'savedAt' => $plan?->created_at?->toIso8601String(),
            'fromDay' => $plan?->from_day,
            'today' => Agreements::today($client),
            'counts' => $client->plan()->revision ?? 0,
            'fields' => [...self::fields(), ...$this->agreements->names($client->id)->fields()],
            'otherKeys' => array_map(strval(...), array_keys($this->planKeys->of($client))),
        ]);
    }

    public function update(Request $request, Client $client): JsonResponse
    {
        $wanted = $request->validate([
            'revision' => 'required|integer|min:0',
            'document' => 'required|array',
            'fromDay' => 'nullable|date_format:Y-m-d',
        ]);
        $document = $request->input('document');
        $plan = PlanReader::read(new Cursor($document));
        $from = $wanted['fromDay'] ?? Agreements::today($client);
        $begins = $from <= Agreements::today($client);
        $saved = DB::transaction(function () use ($client, $wanted, $document, $plan, $from, $begins, $request): bool {
            Client::query()->whereKey($client->id)->lockForUpdate()->first();
            $now = $client->lastPlan()->revision ?? 0;
            if ($now !== (int) $wanted['revision']) {
                return false;
            }
            $client
                ->plans()
                ->create([
                    'revision' => $now + 1,
                    'from_day' => $from,
                    'begun' => $begins,
                    'document' => $document,
                    'user_id' => $request->user()->id,
                ]);
            $this->planKeys->learn($client, $plan);

            return true;
        });
        if (! $saved) {
            return Problem::response(
                409,
                'Somebody else has saved the plan since you opened it. Yours is still here: load theirs in another '
                    .'window, compare, then save again.',
            );
        }
        if ($begins) {
            ProveAccount::each($client->accounts());
            $this->matching->again($client);
        }

        return $this->show($client);
    }

    /**
     * Where a small give in the plan as it is would save much: from the last change of each account that was worked out
     * by it.
     */
    public function advice(Client $client): JsonResponse
    {
        $last = $client
            ->changes()
            ->where('plan_revision', $client->plan()->revision ?? 0)
            ->whereNotNull('story')
            ->where('policy->by', null)
            ->selectRaw('max(id) id')
            ->groupBy('account_id')
            ->pluck('id');
        $advice = Change::query()->whereKey($last)->with('account:id,name')->orderBy('id')->get()->flatMap(
            static fn (Change $c): array => array_map(
                static fn (array $a): array => [
                    'account' => ['id' => $c->account_id, 'name' => $c->account->name],
                    'change' => $c->id,
                    ...$a,
                ],
                $c->story['advice'] ?? [],
            ),
        );

        return new JsonResponse(['items' => $advice->values()->all()]);
    }

    /** What a plan, saved or not, would have some real ads send. */
    public function preview(Request $request, Client $client): JsonResponse
    {
        $wanted = $request->validate(['document' => 'required|array', 'variant' => 'nullable|string|max:255']);
        $plan = PlanReader::read(new Cursor($request->input('document')));
        $variant = array_column($plan->variants, null, 'id')[$wanted['variant'] ?? ''] ?? null;
        $channels = $this->agreements->channels($client);
        $samples = [];
        foreach ($client->accounts as $account) {
            $dialect = Trees::dialect($account);
            foreach ($dialect->campaignTypes as $type) {
                $above =
                    isset($samples["{$dialect->id} {$type}"])
                        ? null
                        : InVariants::first($account, $plan, $type, $variant);
                $ad = $above === null ? null : Node::query()->where('parent_id', $above)->orderBy('position')->first();
                if ($ad !== null && count($samples) < self::SAMPLES) {
                    $samples["{$dialect->id} {$type}"] = $this->sample(
                        $plan,
                        $channels,
                        $dialect,
                        new Lane($type, $variant->id ?? ''),
                        $account,
                        $ad,
                    );
                }
            }
        }

        $in = InVariants::of($client, $plan);

        return new JsonResponse([
            'samples' => array_values($samples),
            'counts' => ['ads' => (object) $in->ads, 'whole' => $in->whole],
            'findings' => $this->findings($client, $plan->in($variant->id ?? ''), $channels),
            'channels' => $channels->channels(),
        ]);
    }

    /**
     * What is wrong with what the plan says, cell by cell.
     *
     * @return list<array<string, mixed>>
     */
    private function findings(Client $client, Plan $plan, Channels $channels): array
    {
        $dialects = $client->accounts->map(Trees::dialect(...))->unique('id')->values()->all();
        $agreed = $this->agreements->words($client)->in($plan, Agreements::today($client));
        $found = [];
        foreach (RuleBook::all($dialects, $channels)->plans as $rule) {
            foreach ($rule->check($agreed) as $finding) {
                $found[] = [
                    'code' => $finding->code,
                    'severity' => $finding->severity,
                    'key' => $finding->key,
                    'platform' => $finding->cell?->platform,
                    'fallback' => $finding->cell?->fallback,
                    'reason' => $finding->reason,
                    'fix' => $finding->fix === null
                        ? null
                        : ['says' => $finding->fix->says, 'text' => $finding->fix->text ?? ''],
                ];
            }
        }

        return $found;
    }

    /** @return array<string, mixed> */
    private function sample(
        Plan $plan,
        Channels $channels,
        Dialect $dialect,
        Lane $lane,
        \App\Models\Account $account,
        Node $ad,
    ): array {
        $branch = Branches::of($account, $ad->id);
        $path = $branch->path($ad->id);
        $truth = Truth::of($plan, $dialect, $lane, static fn (): bool => false);
        $values = $truth->values(SampleClick::of($path, $branch->keywords($ad->id)) + $path->fields(false));

        return [
            'platform' => $dialect->title,
            'dialect' => $dialect->id,
            'family' => $dialect->family,
            'type' => $lane->type,
            'ad' => $ad->name,
            'node' => $ad->id,
            'channel' => self::channel($channels->of($values), $plan->channels[$dialect->family] ?? null),
            'could' => self::givable($dialect, (string) $lane->type),
            'pairs' => array_map(
                static fn (string|int $key): array => [
                    'key' => (string) $key,
                    'value' => $values[$key] ?? null,
                    'means' => isset($truth->choices[$key]) ? self::means($truth->choices[$key], $dialect) : null,
                    'unmet' => $truth->unmet[$key] ?? null,
                ],
                array_values(array_unique([...array_keys($truth->choices), ...array_keys($truth->unmet)])),
            ),
        ];
    }

    /**
     * @param string|null $wanted null: none is
     * @return array{channel: string, why: string, wanted: string|null}
     */
    private static function channel(Counted $counted, ?string $wanted): array
    {
        return ['channel' => $counted->channel, 'why' => $counted->why, 'wanted' => $wanted];
    }

    /** @return list<string> the fields that a platform can give on a type of campaigns */
    private static function givable(Dialect $dialect, string $type): array
    {
        return array_values(
            array_filter(
                self::fields(),
                static fn (string $f): bool => Means::for($f, Shape::AsIs, false, $dialect, $type) !== null,
            ),
        );
    }

    /** How the platform gives it: text, token, custom parameter. */
    private static function means(Choice $choice, Dialect $dialect): string
    {
        $means = array_map(
            static fn ($m): string => $m->token !== null
                ? $dialect->syntax?->open.$m->token->name.$dialect->syntax?->close
                : "set on each {$m->owner?->value}",
            array_values($choice->means),
        );

        return $means === [] ? 'text' : implode(' + ', $means);
    }

    /** @return list<string> */
    private static function fields(): array
    {
        $owned = [];
        foreach (['account', 'campaign', 'group', 'ad'] as $role) {
            array_push($owned, "{$role}.name", "{$role}.id");
        }

        return [...$owned, ...Fields::OF_A_CLICK];
    }
}
