<?php

namespace App\Http\Controllers;

use App\Events\Noteworthy;
use App\Feeds\Drafting;
use App\Http\Problem;
use App\Http\Requests\FeedRulesRequest;
use App\Http\Resources\FeedDraftResource;
use App\Jobs\DraftFeed;
use App\Models\Client;
use App\Models\Feed;
use App\Models\FeedDraft;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

/** Drafts of a product list's rules: worked out, applied or discarded; what was applied before can be drafted again. */
final readonly class FeedDraftController
{
    private const SHOWN = 50;

    /** All but the result, which is long. */
    private const COLUMNS = [
        'id',
        'feed_id',
        'state',
        'why',
        'rules',
        'reads',
        'problem',
        'made_by',
        'made_at',
        'decided_by',
        'decided_at',
    ];

    public function __construct(private Drafting $drafting) {}

    /** The latest first. */
    public function index(Client $client, Feed $feed): JsonResponse
    {
        $drafts = $feed->drafts()
            ->select(self::COLUMNS)
            ->with('maker:id,name', 'decider:id,name')
            ->latest('id')
            ->limit(self::SHOWN)
            ->get();

        return new JsonResponse(['items' => FeedDraftResource::collection($drafts)->resolve()]);
    }

    public function show(Client $client, Feed $feed, FeedDraft $draft): JsonResponse
    {
        return new JsonResponse([
            ...(new FeedDraftResource($draft->load('maker:id,name', 'decider:id,name')))->resolve(),
            'result' => $draft->result,
        ]);
    }

    public function store(FeedRulesRequest $request, Client $client, Feed $feed): JsonResponse
    {
        $feed->core($request->validated('rules'), $request->validated('reads')); // says what is wrong with them
        if ($feed->kept_id === null) {
            return Problem::response(422, 'No list has come yet: there is nothing to work it out on.');
        }
        $draft = DB::transaction(static function () use ($request, $feed): FeedDraft {
            Feed::query()->lockForUpdate()->findOrFail($feed->id);
            $feed->drafts()
                ->whereIn('state', ['working', 'ready', 'failed'])
                ->update(['state' => 'discarded', 'decided_by' => $request->user()->id, 'decided_at' => now()]);

            return $feed->drafts()->create([
                'copy_id' => $feed->kept_id,
                'rules' => $request->validated('rules'),
                'reads' => $request->validated('reads'),
                'why' => (string) $request->validated('why'),
                'state' => 'working',
                'made_by' => $request->user()->id,
                'made_at' => now(),
            ]);
        });
        DraftFeed::dispatch($draft->id);

        return new JsonResponse(new FeedDraftResource($draft->load('maker:id,name')), 201);
    }

    public function apply(Request $request, Client $client, Feed $feed, FeedDraft $draft): JsonResponse
    {
        if (! $draft->mayBeAppliedBy($request->user(), $client)) {
            return Problem::response(
                403,
                "This draft is your own, and {$client->name} wants another person’s yes before anything goes out. "
                    .'Another editor has to apply it.',
            );
        }
        if (! $this->drafting->apply($draft, $request->user())) {
            return self::over();
        }
        Noteworthy::dispatch('feed-rules-applied', $request->user()->id, $client->id, [
            'feed' => $feed->name,
            'draft' => $draft->id,
            'why' => $draft->why,
        ]);

        return $this->show($client, $feed, $draft->refresh());
    }

    public function discard(Request $request, Client $client, Feed $feed, FeedDraft $draft): JsonResponse
    {
        return Drafting::decide($draft, 'discarded', $request->user())
            ? $this->show($client, $feed, $draft->refresh())
            : self::over();
    }

    private static function over(): JsonResponse
    {
        return Problem::response(409, 'This draft was decided on already, or is not worked out yet.');
    }
}
