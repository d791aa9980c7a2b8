<?php

namespace App\Links;

use App\Agreements\Agreements;
use App\Models\Client;
use App\Models\Link;
use App\Models\ShortHost;
use App\Support\Stretch;
use Vestigon\Core\Channel\Channels;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Link\Inspection;
use Vestigon\Core\Link\Link as CoreLink;
use Vestigon\Core\Link\Sight;
use Vestigon\Core\Plan\AgreedWords;

/** Looks at links before they are made, and at those that there are, beside what a client's people have agreed on. */
final readonly class Looking
{
    /** Keys of the trade that tell links apart; where the plan has them. */
    private const USUAL = ['utm_content', 'utm_term'];

    private Channels $channels;

    private AgreedWords $words;

    private Inspection $inspection;

    /** @var list<string> */
    private array $shortHosts;

    private string $today;

    public function __construct(private Client $client, Agreements $agreements)
    {
        $this->channels = $agreements->channels($client);
        $this->words = $agreements->words($client);
        $this->inspection = Inspection::all(array_values(Shipped::all()));
        $this->shortHosts = ShortHost::ours();
        $this->today = Agreements::today($client);
    }

    public static function by(Client $client): self
    {
        return app()->make(self::class, ['client' => $client]);
    }

    public function sight(CoreLink $link): Sight
    {
        return new Sight($link, $this->channels, $this->words, $this->today, $this->shortHosts);
    }

    /** @return list<Finding> */
    public function findings(Sight $sight): array
    {
        return $this->inspection->of($sight);
    }

    /** @return list<string> the keys that a link is usually given, in their order */
    public function keys(): array
    {
        $plan = $this->client->plan()?->read()->keys() ?? [];
        $counted = array_values($this->channels->keys);

        return array_values(array_unique([...$counted, ...array_intersect($plan, self::USUAL)]));
    }

    /**
     * @param list<Wanted> $wanted
     * @return list<array<string, mixed>> what is to be said of each, in their order
     */
    public function told(array $wanted): array
    {
        $sameness = array_map(static fn (Wanted $w): string => $w->link->sameness(), $wanted);
        $there = $this->client
            ->links()
            ->whereIn('sameness', array_unique($sameness))
            ->orderBy('id')
            ->get()
            ->keyBy('sameness');
        $taken = Codes::taken($wanted);
        $first = $told = [];
        foreach ($wanted as $i => $w) {
            $sight = $this->sight($w->link);
            $findings = $this->findings($sight);
            if ($w->code !== null) {
                array_push($findings, ...Codes::findings($this->client, $w, $taken));
            }
            $first[$sameness[$i]] ??= $i;
            $double = $there[$sameness[$i]] ?? null;
            $told[] = [
                'url' => $sight->url,
                'segments' => self::segments($w->link),
                'channel' => $sight->counted->channel,
                'findings' => self::said($findings),
                'allowed' => Inspection::allows($findings),
                'double' => $double instanceof Link ? self::brief($double) : null,
                'sameAs' => $first[$sameness[$i]] === $i ? null : $first[$sameness[$i]],
            ];
        }

        return $told;
    }

    /** @return array{id: int, title: string, short: string|null} */
    public static function brief(Link $link): array
    {
        return ['id' => $link->id, 'title' => $link->title, 'short' => $link->short()];
    }

    /**
     * @param list<Finding> $findings
     * @return list<array<string, mixed>>
     */
    public static function said(array $findings): array
    {
        $kept = array_fill_keys(['code', 'severity', 'key', 'reason', 'fix'], true);

        return array_map(static fn (Finding $f): array => array_intersect_key($f->toArray(), $kept), $findings);
    }

    /** @return list<array<string, mixed>> as ribbons show them */
    public static function segments(CoreLink $link): array
    {
        return array_map(
            static fn (array $stretch): array => Stretch::of($stretch[0], $stretch[1] ? 'text' : 'landing'),
            $link->stretches(),
        );
    }
}
