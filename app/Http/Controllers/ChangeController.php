<?php

namespace App\Http\Controllers;

use App\Changes\ByHand;
use App\Http\Problem;
use App\Jobs\ApplyChange;
use App\Jobs\DraftChange;
use App\Models\Change;
use App\Models\ChangeWrite;
use App\Models\Client;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class ChangeController
{
    private const MAY_START = ['ready', 'stopped', 'partly'];

    public function index(Client $client): JsonResponse
    {
        return new JsonResponse(['items' => $client->changes()->with('account', 'author')->withCount('writes')->latest('id')->limit(100)->get()->map(static fn (Change $c): array => [
            'id' => $c->id, 'title' => $c->title, 'status' => $c->status, 'account' => $c->account->name, 'author' => $c->author->name, 'writes' => $c->writes_count,
            'ads' => $c->story['ads'] ?? null, 'at' => $c->created_at?->toIso8601String(),
        ])->all()]);
    }

    public function store(Request $request, Client $client): JsonResponse
    {
        $wanted = $request->validate([
            'account' => 'required|integer', 'title' => 'required|string|max:200', 'reason' => 'nullable|string|max:2000',
            'existing' => 'required_without:texts|in:keep,replace', 'carrier' => 'required_without:texts|in:fewest,template,suffix',
            'texts' => 'array|min:1|max:1000', 'texts.*.node' => 'required|integer', 'texts.*.slot' => 'required|in:template,suffix,landing,custom', 'texts.*.custom' => 'nullable|string|max:64', 'texts.*.text' => 'nullable|string|max:10000',
        ]);
        $account = $client->accounts()->find($wanted['account']);
        $plan = $client->plan();
        if ($account === null || $plan === null) {
            return Problem::response(422, $account === null ? "There is no such account at {$client->name}." : 'There is no plan yet. Write it first; the change brings the account in line with it.');
        }
        if (isset($wanted['texts'])) {
            $texts = array_map(static fn (array $t): array => ['node' => (int) $t['node'], 'kind' => $t['slot'], 'name' => $t['slot'] === 'custom' ? (string) ($t['custom'] ?? '') : '', 'text' => $t['text'] ?? null], array_values($wanted['texts']));

            return ByHand::draft($client, $account, $wanted['title'], $wanted['reason'] ?? '', $texts, $request->user()->id);
        }
        $change = $client->changes()->create([
            'account_id' => $account->id, 'title' => $wanted['title'], 'reason' => $wanted['reason'] ?? '', 'status' => 'drafting', 'plan_revision' => $plan->revision,
            'policy' => ['existing' => $wanted['existing'], 'carrier' => $wanted['carrier']], 'user_id' => $request->user()->id,
        ]);
        DraftChange::dispatch($change->id);

        return new JsonResponse(['id' => $change->id], 202);
    }

    public function show(Client $client, Change $change): JsonResponse
    {
        $change->load('account', 'author', 'applier');

        return new JsonResponse([
            ...self::progress($change), 'reason' => $change->reason, 'policy' => $change->policy, 'planRevision' => $change->plan_revision, 'planIsCurrent' => $client->plan()?->revision === $change->plan_revision,
            'account' => ['id' => $change->account->id, 'name' => $change->account->name], 'author' => $change->author->name, 'appliedBy' => $change->applier?->name,
            'at' => $change->created_at?->toIso8601String(), 'appliedAt' => $change->applied_at?->toIso8601String(), 'finishedAt' => $change->finished_at?->toIso8601String(), 'story' => $change->story,
        ]);
    }

    public function writes(Request $request, Client $client, Change $change): JsonResponse
    {
        $offset = (int) $request->integer('offset');
        $query = $change->writes()->with('node:id,name,level,external_id')->offset($offset)->limit(200);
        if ($request->boolean('failed')) {
            $query->whereIn('state', ['failed', 'differs']);
        }

        return new JsonResponse(['total' => $change->writes()->count(), 'items' => $query->get()->map(static fn (ChangeWrite $w): array => [
            'id' => $w->id, 'node' => $w->node_id, 'name' => $w->node->name, 'level' => $w->node->level, 'kind' => $w->kind, 'custom' => $w->name, 'before' => $w->before, 'after' => $w->after, 'state' => $w->state, 'problem' => $w->problem,
        ])->all()]);
    }

    /** Starts a change, or goes on with one that stopped. */
    public function apply(Request $request, Client $client, Change $change): JsonResponse
    {
        if (in_array($change->status, self::MAY_START, true) && $change->status === 'ready' && $client->plan()?->revision !== $change->plan_revision) {
            return Problem::response(409, 'The plan has changed since this change was worked out. Draft it again.');
        }
        if ($client->changes()->where('account_id', $change->account_id)->where('status', 'applying')->where('id', '<>', $change->id)->exists()) {
            return Problem::response(409, 'Another change of the same account is being applied. Wait until it has ended.');
        }
        $started = Change::query()->whereKey($change->id)->whereIn('status', self::MAY_START)->update(['status' => 'applying', 'problem' => null, 'applied_by' => $request->user()->id, 'applied_at' => now(), 'finished_at' => null]);
        if ($started === 0) {
            return Problem::response(409, match ($change->status) {
                'applying' => 'This change is being applied already. It is not started twice.',
                'done' => 'This change has been applied. Nothing is left to do.',
                default => "A change that is {$change->status} can't be applied.",
            });
        }
        $change->writes()->reorder()->whereIn('state', ['failed', 'differs'])->update(['state' => 'waiting', 'problem' => null, 'batch' => null]);
        ApplyChange::dispatch($change->id);

        return new JsonResponse(['id' => $change->id], 202);
    }

    /** Drafts the change that puts everything back to the exact texts before this one. */
    public function takeBack(Request $request, Client $client, Change $change): JsonResponse
    {
        if (! in_array($change->status, ['done', 'partly', 'stopped'], true)) {
            return Problem::response(409, 'Only a change that has been applied, whole or in part, can be taken back.');
        }
        $texts = $change->writes()->reorder('position', 'desc')->whereIn('state', ['written', 'verified', 'differs'])->get()->map(static fn (ChangeWrite $w): array => ['node' => $w->node_id, 'kind' => $w->kind, 'name' => $w->name, 'text' => $w->before])->all();

        return $texts === [] ? Problem::response(409, 'Nothing of this change was written, so there is nothing to take back.')
            : ByHand::draft($client, $change->account, "Take back: {$change->title}", "Back to the texts before change {$change->id}.", $texts, $request->user()->id);
    }

    /** @return array<string, mixed> */
    public static function progress(Change $change): array
    {
        $states = $change->writes()->reorder()->selectRaw('state, count(*) n')->groupBy('state')->pluck('n', 'state')->all();

        return ['id' => $change->id, 'title' => $change->title, 'status' => $change->status, 'problem' => $change->problem, 'progress' => (object) $states, 'total' => array_sum($states)];
    }
}
