<?php

namespace App\Changes;

use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Client;
use App\Models\User;
use Illuminate\Support\Facades\DB;

/** A change in the form that the interface shows. */
final class Telling
{
    /** @return array<string, mixed> how far it is */
    public static function progress(Change $change): array
    {
        $states = $change
            ->writes()
            ->reorder()
            ->when($change->stage === 'trial', static fn ($q) => $q->where('stage', 'trial'))
            ->selectRaw('state, count(*) n')
            ->groupBy('state')
            ->pluck('n', 'state')
            ->all();

        return [
            'id' => $change->id,
            'title' => $change->title,
            'status' => $change->status->value,
            'stage' => $change->stage,
            'problem' => $change->problem,
            'progress' => (object) $states,
            'total' => array_sum($states),
            'step' => $change->step,
            'through' => $change->through,
            'of' => $change->status === ChangeStatus::Drafting
                    ? (int) $change->account->nodes()->whereNull('parent_id')->sum('ads')
                    : 0,
        ];
    }

    /** @return array<string, mixed> */
    public static function whole(Client $client, Change $change, User $user): array
    {
        $change->load('account', 'author', 'applier', 'approver');
        $plan = $client->plan();
        $waits = in_array($change->status, [ChangeStatus::Ready, ChangeStatus::Tried], true);

        return [
            ...self::progress($change),
            'may' => (new Guard($client, $change, $user))->open(),
            'draft' => $change->draft,
            'reason' => $change->reason,
            'policy' => (object) $change->policy,
            'planRevision' => $change->plan_revision,
            'planIsCurrent' => $plan?->revision === $change->plan_revision,
            'account' => ['id' => $change->account->id, 'name' => $change->account->name],
            'author' => $change->author->name,
            'appliedBy' => $change->applier?->name,
            'at' => $change->created_at?->toIso8601String(),
            'appliedAt' => $change->applied_at?->toIso8601String(),
            'finishedAt' => $change->finished_at?->toIso8601String(),
            'story' => $change->story === null
                    ? null
                    : [
                        ...['switches' => [], 'names' => 0, 'namesFreeze' => false, 'advice' => []],
                        ...$change->story,
                    ],
            'writes' => $change->writes()->count(),
            'scope' => $change->scope === null
                    ? []
                    : $change->account
                        ->nodes()
                        ->whereIntegerInRaw('id', array_slice($change->scope, 0, 5))
                        ->pluck('name')
                        ->all(),
            'approval' => [
                'needed' => $client->needs_approval,
                'by' => $change->approver?->name,
                'at' => $change->approved_at?->toIso8601String(),
                'own' => $change->user_id === $user->id,
                'opened' => array_map(
                    intval(...),
                    DB::table('change_looks')
                        ->where(['change_id' => $change->id, 'user_id' => $user->id, 'draft' => $change->draft])
                        ->pluck('node_id')
                        ->all(),
                ),
            ],
            'overlaps' => $waits
                ? Overlaps::with($change, [ChangeStatus::Ready, ...ChangeStatus::underWay()])
                : [],
            'trial' => $change->trial,
            'verified' => $change->verified,
            'together' => Together::tell($change),
            'takesBack' => $change->takes_back,
            'takenBackBy' => Change::query()
                ->where('takes_back', $change->id)
                ->whereIn('status', [ChangeStatus::Done, ChangeStatus::Partly])
                ->value('id'),
        ];
    }
}
