<?php

namespace App\Http\Controllers;

use App\Http\Problem;
use App\Http\Requests\ChangeLinkRequest;
use App\Http\Requests\LinksRequest;
use App\Http\Requests\ListLinksRequest;
use App\Links\Listed;
use App\Links\Looking;
use App\Links\Making;
use App\Links\Redirects;
use App\Links\Wanted;
use App\Models\Client;
use App\Models\Link;
use App\Models\LinkMove;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Link\Inspection;

/** Links that people place themselves. */
final readonly class LinkController
{
    private const PAGE = 100;

    private const DAYS = 90;

    public function __construct(private Making $making, private Listed $listed, private Redirects $redirects) {}

    public function index(ListLinksRequest $request, Client $client): JsonResponse
    {
        $links = $request
            ->narrowed($client->links())
            ->with('maker:id,name')
            ->orderByDesc('id')
            ->limit(self::PAGE + 1)
            ->get();

        return new JsonResponse([
            'items' => $this->listed->of($client, $links->take(self::PAGE)),
            'more' => $links->count() > self::PAGE,
            'keys' => Looking::by($client)->keys(),
            'currency' => $client->currency,
        ]);
    }

    /** What is to be said of links before they are made; nothing is kept by it. */
    public function look(LinksRequest $request, Client $client): JsonResponse
    {
        return new JsonResponse(['rows' => Looking::by($client)->told($request->wanted())]);
    }

    /** All that may be made; of the others is said why not. */
    public function store(LinksRequest $request, Client $client): JsonResponse
    {
        $wanted = $request->wanted();
        $looks = Looking::by($client)->told($wanted);
        $may = array_keys(array_filter($looks, static fn (array $look): bool => $look['allowed']));
        try {
            $ids = $this->making->make(
                $client,
                $request->user(),
                array_map(static fn (int $i): Wanted => $wanted[$i], $may),
            );
        } catch (UniqueConstraintViolationException) {
            return Problem::response(409, 'Somebody has just taken one of these words. Nothing was made; try again.');
        }
        $made = $client->links()->whereIntegerInRaw('id', $ids)->with('maker:id,name')->orderBy('id')->get();

        return new JsonResponse(
            [
                'made' => $made->map(Listed::told(...))->all(),
                'refused' => array_map(
                    static fn (int $i): array => ['row' => $i, 'findings' => $looks[$i]['findings']],
                    array_keys(array_filter($looks, static fn (array $look): bool => ! $look['allowed'])),
                ),
            ],
            201,
        );
    }

    public function show(Client $client, Link $link): JsonResponse
    {
        return new JsonResponse([
            ...$this->listed->of($client, collect([$link->load('maker:id,name')]))[0],
            'moves' => $link
                ->moves()
                ->with('user:id,name')
                ->limit(self::PAGE)
                ->get()
                ->map(static fn (LinkMove $m): array => [
                    'at' => $m->at->toIso8601ZuluString(),
                    'by' => $m->user?->name,
                    'before' => $m->before,
                    'after' => $m->after,
                    'why' => $m->why,
                ])
                ->all(),
            'days' => DB::table('link_days')
                ->where('link_id', $link->id)
                ->where('day', '>', now($client->time_zone)->subDays(self::DAYS)->toDateString())
                ->orderBy('day')
                ->get(['day', 'people', 'programs'])
                ->all(),
        ]);
    }

    public function update(ChangeLinkRequest $request, Client $client, Link $link): JsonResponse
    {
        $wanted = $request->validated();
        $to = $request->to();
        if ($to !== null) {
            $looking = Looking::by($client);
            $findings = $looking->findings($looking->sight($to->link));
            if (! Inspection::allows($findings)) {
                return Problem::response(422, $findings[0]->reason);
            }
            $this->making->move($link, $request->user(), $to->link, $wanted['why'] ?? '');
        }
        $link->refresh()->update([
            ...isset($wanted['title']) ? ['title' => $wanted['title']] : [],
            ...isset($wanted['forwards']) ? ['forwards' => $wanted['forwards']] : [],
            ...array_key_exists('endsAt', $wanted)
                ? ['ends_at' => $wanted['endsAt'] === null ? null : Carbon::parse($wanted['endsAt'])->utc()]
                : [],
        ]);
        $this->redirects->changed($link);

        return $this->show($client, $link);
    }

    /** It is gone: its short address says so, and is nobody else's. */
    public function destroy(Client $client, Link $link): JsonResponse
    {
        $link->delete();
        $this->redirects->changed($link);

        return new JsonResponse(null, 204);
    }

    public function restore(Client $client, Link $link): JsonResponse
    {
        $link->restore();
        $this->redirects->changed($link);

        return $this->show($client, $link);
    }
}
