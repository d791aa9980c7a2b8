<?php

namespace App\Http\Controllers;

use App\Agreements\Agreements;
use App\Agreements\Ladder;
use App\Agreements\Lines;
use App\Http\Requests\TryChannelsRequest;
use App\Models\Client;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Vestigon\Core\Channel\Channels;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Channel\RuleLook;
use Vestigon\Core\Document\Cursor;

/** Channel rules tried on clicks: one that is thought up, and all that have arrived. */
final class ChannelController
{
    public function __construct(private readonly Agreements $agreements) {}

    /** What each rule has taken. */
    public function caught(Client $client): JsonResponse
    {
        return new JsonResponse([
            'days' => Lines::DAYS,
            ...(new Ladder($client))->caught($this->agreements->channels($client)),
        ]);
    }

    /** In which channel a click would be counted, and why. */
    public function try(TryChannelsRequest $request, Client $client): JsonResponse
    {
        $channels = $this->wanted($request, $client);
        $values = array_map(strval(...), $request->validated()['values']);
        $counted = $channels->of($values);

        return new JsonResponse([
            'channel' => $counted->channel,
            'rule' => $counted->rule,
            'why' => $counted->why,
            'looks' => array_map(
                static fn (RuleLook $l): array => [
                    'rule' => $l->rule,
                    'channel' => $l->channel,
                    'tests' => $l->tests,
                ],
                $channels->looks($values),
            ),
        ]);
    }

    /** What other rules would count elsewhere, of what has arrived. */
    public function shift(Request $request, Client $client): JsonResponse
    {
        $request->validate(['document' => 'required|array']);

        $shift = (new Ladder($client))->shift(
            $this->agreements->channels($client),
            ChannelsReader::read(new Cursor($request->input('document'))),
        );
        $line = static fn (array $line): array => ['values' => (object) $line['values']] + $line;

        return new JsonResponse([
            'days' => Lines::DAYS,
            'stays' => $shift['stays'],
            'flows' => array_map(
                static fn (array $f): array => ['lines' => array_map($line, $f['lines'])] + $f,
                $shift['flows'],
            ),
        ]);
    }

    private function wanted(Request $request, Client $client): Channels
    {
        return $request->input('document') === null
            ? $this->agreements->channels($client)
            : ChannelsReader::read(new Cursor($request->input('document')));
    }
}
