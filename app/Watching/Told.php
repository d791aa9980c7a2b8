<?php

namespace App\Watching;

use App\Agreements\Agreements;
use App\Dialects\Dialects;
use App\Models\Client;
use App\Models\Collector;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Watch\ClickKeys;
use Vestigon\Core\Watch\Days;
use Vestigon\Core\Watch\Event;
use Vestigon\Core\Watch\Origin;
use Vestigon\Core\Watch\Origins;
use Vestigon\Core\Watch\Referrers;

/** What tells where a client's views came from: its channels, its platforms' click IDs, its own hosts. */
final readonly class Told
{
    public function __construct(private Agreements $agreements, private Dialects $dialects) {}

    /**
     * Where views came from, each by what was agreed on its day.
     *
     * @return \Closure(Event): Origin
     */
    public function byDays(Client $client): \Closure
    {
        $days = new Days($client->time_zone);
        $channels = $this->agreements->channelsByDay($client);
        $clicks = $this->clickKeys($client);
        $referrers = self::referrers($client);
        $byRules = $byDay = [];

        return static function (
            Event $view,
        ) use ($days, $channels, $clicks, $referrers, &$byRules, &$byDay): Origin {
            $day = $days->day($view->at);
            if (! isset($byDay[$day])) {
                $rules = $channels($day);
                $byDay[$day] = $byRules[spl_object_id($rules)] ??= new Origins($rules, $clicks, $referrers);
            }

            return $byDay[$day]->of($view);
        };
    }

    /**
     * @param Dialect|null $first a platform that may be no client's yet
     * @param string|null $day the client's; today if none is given
     */
    public function origins(Client $client, ?Dialect $first = null, ?string $day = null): Origins
    {
        return new Origins(
            $this->agreements->channels($client, $day),
            $this->clickKeys($client, $first),
            self::referrers($client),
        );
    }

    private static function referrers(Client $client): Referrers
    {
        $settings = Settings::of($client);

        return new Referrers($settings->referrers, [], [...self::ownHosts($client), ...$settings->stations]);
    }

    /** @return list<string> nobody comes from there: they are at the client's already */
    public static function ownHosts(Client $client): array
    {
        $reporting = Collector::query()
            ->where('client_id', $client->id)
            ->whereNotNull('hosts')
            ->pluck('hosts')
            ->all();

        return array_values(array_unique(array_merge($client->hosts ?? [], ...$reporting)));
    }

    /** @return list<string> the parameters in which the client's platforms send click IDs */
    public function clickParameters(Client $client): array
    {
        $parameters = array_map(
            static fn (Dialect $d): ?string => $d->clickId?->parameter,
            $this->dialects->usedBy($client),
        );

        return array_values(array_unique(array_filter($parameters, static fn (?string $p): bool => $p !== null)));
    }

    private function clickKeys(Client $client, ?Dialect $first = null): ClickKeys
    {
        $parameters = $families = [];
        foreach (array_filter([$first, ...$this->dialects->usedBy($client)]) as $dialect) {
            $families[$dialect->id] ??= $dialect->family;
            if ($dialect->clickId !== null) {
                $parameters[$dialect->id] ??= $dialect->clickId->parameter;
            }
        }

        return new ClickKeys($parameters, $families);
    }
}
