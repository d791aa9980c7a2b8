<?php

namespace App\Http\Controllers;

use App\Events\Noteworthy;
use App\Http\Requests\AcceptTroubleRequest;
use App\Http\Resources\TroubleResource;
use App\Models\Client;
use App\Models\Trouble;
use App\Troubles\AdsOf;
use App\Troubles\Looking;
use App\Troubles\Troubles;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

/** Where the day begins: what is wrong over all accounts, by cause, the dearest first. */
final readonly class TroubleController
{
    /** What was mended is told for so many days. */
    private const MENDED = 14;

    /** Proof is told of so many days. */
    private const DAYS = 60;

    public function __construct(private Troubles $troubles, private AdsOf $ads) {}

    public function index(Client $client): JsonResponse
    {
        $this->troubles->lookAgain($client);
        $all = $client
            ->troubles()
            ->with(['account:id,name,dialect', 'feed:id,name', 'acceptedBy:id,name'])
            ->where(
                static fn ($of) => $of
                    ->whereNull('mended_at')
                    ->orWhere('mended_at', '>=', now()->subDays(self::MENDED)),
            )
            ->orderByRaw('mended_at is not null')
            ->orderByDesc('cost')
            ->orderByDesc('clicks')
            ->orderByDesc('ads')
            ->orderBy('id')
            ->get();
        $began = $client->troubles()->toBase()->min('first_at');
        $spent = DB::table('figures')
            ->where('client_id', $client->id)
            ->where('day', '>=', Looking::since($client))
            ->where('currency', $client->currency);

        return new JsonResponse([
            'items' => TroubleResource::collection($all)->resolve(),
            'days' => DB::table('proof_days as d')
                ->join('accounts as a', 'a.id', 'd.account_id')
                ->where('a.client_id', $client->id)
                ->where('d.day', '>=', Looking::since($client, self::DAYS))
                ->groupBy('d.day')
                ->orderBy('d.day')
                ->selectRaw('d.day, sum(d.proven) proven, sum(d.broken) broken, sum(d.untracked) untracked')
                ->get()
                ->map(static fn (object $d): array => [
                    'day' => $d->day,
                    'proven' => (int) $d->proven,
                    'broken' => (int) $d->broken,
                    'untracked' => (int) $d->untracked,
                ])
                ->all(),
            'cost' => (int) $spent->sum('cost'),
            'beganAt' => $began === null ? null : str_replace(' ', 'T', $began).'Z',
            'hasPlan' => $client->plan() !== null,
        ]);
    }

    /** The ads that it is about, the dearest first. */
    public function ads(Client $client, Trouble $trouble): JsonResponse
    {
        return new JsonResponse($this->ads->of($client, $trouble));
    }

    /** Why it is to stay as it is, and until when. */
    public function accept(AcceptTroubleRequest $request, Client $client, Trouble $trouble): JsonResponse
    {
        $wanted = $request->validated();
        $trouble->update([
            'accepted_until' => $wanted['until'],
            'accepted_why' => $wanted['why'],
            'accepted_by' => $request->user()->id,
        ]);
        Noteworthy::dispatch('trouble-accepted', $request->user()->id, $client->id, [
            'what' => $trouble->what,
            'until' => $wanted['until'],
            'why' => $wanted['why'],
        ]);

        return new JsonResponse(new TroubleResource($trouble->load('account', 'feed', 'acceptedBy')));
    }

    public function acceptNoLonger(Request $request, Client $client, Trouble $trouble): JsonResponse
    {
        $trouble->update(['accepted_until' => null, 'accepted_why' => null, 'accepted_by' => null]);
        Noteworthy::dispatch('trouble-accepted-no-longer', $request->user()->id, $client->id, [
            'what' => $trouble->what,
        ]);

        return new JsonResponse(new TroubleResource($trouble->load('account', 'feed', 'acceptedBy')));
    }
}
