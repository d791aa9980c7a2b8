<?php

namespace App\Http\Controllers;

use App\Events\Noteworthy;
use App\Http\Requests\AcceptTroubleRequest;
use App\Http\Resources\TroubleResource;
use App\Models\Client;
use App\Models\Trouble;
use App\Troubles\AdsOf;
use App\Troubles\ByPlacement;
use App\Troubles\ProofDay;
use App\Troubles\Report;
use App\Troubles\Troubles;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Response;

/** Where the day begins: what is wrong over all accounts, by cause, the dearest first. */
final readonly class TroubleController
{
    public function __construct(
        private Troubles $troubles,
        private AdsOf $ads,
        private Report $report,
    ) {}

    public function index(Client $client): JsonResponse
    {
        $this->troubles->lookAgain($client);
        $looking = Troubles::isLooking($client); // asked before what is known is read
        $all = Troubles::shown($client)->get();
        $began = $client->troubles()->toBase()->min('first_at');

        return new JsonResponse([
            'items' => TroubleResource::collection($all)->resolve(),
            'days' => ProofDay::all($client),
            'cost' => $this->report->spent($client),
            'beganAt' => $began === null ? null : str_replace(' ', 'T', $began).'Z',
            'hasPlan' => $client->plan() !== null,
            'looking' => $looking,
        ]);
    }

    /** To hand on: a page that needs nothing else, or a workbook. */
    public function report(Request $request, Client $client): Response
    {
        $kind = $request->validate(['kind' => 'required|in:html,xlsx'])['kind'];
        $this->troubles->lookAgain($client);
        if ($kind === 'html') {
            $name = "audit {$client->slug} ".now($client->time_zone)->toDateString().'.html';

            return response($this->report->page($client), 200, [
                'Content-Type' => 'text/html; charset=UTF-8',
                'Content-Disposition' => HeaderUtils::makeDisposition('attachment', $name),
            ]);
        }
        $file = $this->report->workbook($client);

        return (new BinaryFileResponse($file['path'], 200, ['Content-Type' => $file['type']]))
            ->setContentDisposition('attachment', $file['name'])
            ->deleteFileAfterSend();
    }

    /** The ads that it is about, the dearest first. */
    public function ads(Client $client, Trouble $trouble): JsonResponse
    {
        return new JsonResponse([
            ...$this->ads->of($client, $trouble),
            'placements' => ByPlacement::of($client, $trouble),
        ]);
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
