<?php

namespace App\Http\Controllers;

use App\Feeds\Arriving;
use App\Feeds\Drafting;
use App\Feeds\Files\ItemsFile;
use App\Feeds\Files\Opening;
use App\Feeds\Receiving;
use App\Feeds\Suggestion;
use App\Http\Problem;
use App\Http\Requests\FeedFileRequest;
use App\Http\Requests\FeedRequest;
use App\Http\Requests\FeedRulesRequest;
use App\Http\Resources\FeedResource;
use App\Jobs\FetchFeed;
use App\Jobs\TakeFeed;
use App\Models\Client;
use App\Models\Feed;
use App\Models\FeedCopy;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Str;
use Vestigon\Core\Feed\Form;

/** Product lists: where they come from, what their rules do. */
final readonly class FeedController
{
    private const MOST_GONE = 20;

    /** A list of so many bytes is read while a person waits; a larger one by a worker. */
    private const READ_AT_ONCE = 32 << 20;

    public function __construct(private Arriving $arriving, private Drafting $drafting) {}

    public function index(Client $client): JsonResponse
    {
        $feeds = $client->feeds()->with('kept', 'applied')->orderBy('name')->get();

        $gone = $client->feeds()->onlyTrashed()->latest('gone_at')->limit(self::MOST_GONE)->get();

        return new JsonResponse([
            'items' => FeedResource::collection($feeds)->resolve(),
            'gone' => $gone->map(static fn (Feed $f): array => [
                'id' => $f->id,
                'name' => $f->name,
                'at' => $f->gone_at?->toIso8601String(),
            ])->all(),
        ]);
    }

    public function store(FeedRequest $request, Client $client): JsonResponse
    {
        $words = ['secret' => Str::random(40), 'call' => Str::random(40)];
        $feed = $client->feeds()->create($request->columns() + $words);
        if ($feed->address !== null) {
            FetchFeed::dispatch($feed->id);
        }

        return new JsonResponse(new FeedResource($feed), 201);
    }

    /** With the columns that its list has. */
    public function show(Client $client, Feed $feed): JsonResponse
    {
        $isThere = $feed->kept?->setRelation('feed', $feed)->isThere() === true;
        $columns = $isThere ? Suggestion::columns(self::file($feed)) : [];

        return new JsonResponse([
            ...(new FeedResource($feed))->resolve(),
            'columns' => array_map(
                static fn (string|int $name, array $of): array => ['name' => (string) $name, ...$of],
                array_keys($columns),
                $columns,
            ),
        ]);
    }

    public function update(FeedRequest $request, Client $client, Feed $feed): JsonResponse
    {
        $feed->fill($request->columns());
        if ($feed->isDirty('address')) {
            $feed->fill(['etag' => null, 'modified' => null]);
        }
        if ($feed->isDirty('address', 'every_minutes')) {
            $feed->next_at = $feed->address === null || $feed->every_minutes === null ? null : now();
        }
        $feed->save();

        return new JsonResponse(new FeedResource($feed));
    }

    /** It is handed on no longer. */
    public function destroy(Client $client, Feed $feed): JsonResponse
    {
        $feed->update(['next_at' => null]);
        $feed->delete();

        return new JsonResponse(null, 204);
    }

    /** A list that was let go is handed on again as it was; it is fetched by its schedule, the first time now. */
    public function restore(Client $client, Feed $feed): JsonResponse
    {
        $feed->restore();
        $feed->update(['next_at' => $feed->address === null || $feed->every_minutes === null ? null : now()]);

        return new JsonResponse(new FeedResource($feed->refresh()));
    }

    public function fetch(Client $client, Feed $feed): JsonResponse
    {
        if ($feed->address === null) {
            return Problem::response(422, 'This list has no address that it could be fetched from. Put in a file.');
        }
        FetchFeed::dispatch($feed->id);

        return new JsonResponse(new FeedResource($feed->refresh()), 202);
    }

    /** A part of a file with a list; with the last one the list takes the place of the one that is kept. */
    public function put(FeedFileRequest $request, Client $client, Feed $feed): JsonResponse
    {
        $wanted = $request->validated();
        $content = base64_decode($wanted['content'], true);
        if ($content === false) {
            return Problem::response(422, 'The part did not come whole. Send it again.');
        }
        $receiving = new Receiving($feed, $wanted['file']);
        $bytes = (int) $wanted['bytes'];
        $received = $receiving->part((int) $wanted['from'], $content, $bytes);
        $path = $received === $bytes ? $receiving->whole() : null;
        $isTaken = $path !== null && $bytes <= self::READ_AT_ONCE;
        if ($path !== null && $isTaken) {
            $this->arriving->take($feed, $path);
        } elseif ($path !== null) {
            TakeFeed::dispatch($feed->id, $path);
        }

        return new JsonResponse(
            ['received' => $received, 'feed' => new FeedResource($feed->refresh())],
            $isTaken ? 200 : 202,
        );
    }

    /** A list that was held is right as it is. */
    public function accept(Client $client, Feed $feed, FeedCopy $copy): JsonResponse
    {
        if ($copy->state !== 'held' || ! $copy->isThere()) {
            return Problem::response(422, 'That list is not there to be taken any more.');
        }
        $this->arriving->accept($copy);

        return new JsonResponse(new FeedResource($feed->refresh()));
    }

    /** What rules would make of the first items; nothing is kept by it. */
    public function try(FeedRulesRequest $request, Client $client, Feed $feed): JsonResponse
    {
        return new JsonResponse(
            $this->drafting->try($feed, $request->validated('rules'), $request->validated('reads')),
        );
    }

    private static function file(Feed $feed): ItemsFile
    {
        $copy = $feed->kept?->setRelation('feed', $feed) ?? throw new \LogicException('no list has come');

        return Opening::of(
            $copy->path(),
            isset($feed->reads['form']) ? Form::from($feed->reads['form']) : null,
            $feed->reads['item'] ?? null,
        );
    }
}
