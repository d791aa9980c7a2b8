<?php

namespace App\Watching;

use App\Agreements\Agreements;
use App\Models\Client;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Naming\Patterns;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Url\Query;
use Vestigon\Core\Watch\Event;
use Vestigon\Core\Watch\EventKind;

/** How a click will read in a report, as far as its landing URL and the names of its ad tell. */
final readonly class ReportLine
{
    public function __construct(private Told $told, private Agreements $agreements) {}

    /**
     * @param string $url that the page is opened with
     * @param Path $path the ad's, whose names have parts
     * @return array<string, mixed>
     */
    public function of(Client $client, string $url, Path $path, ?Plan $plan): array
    {
        $view = new Event('1', '', 0, EventKind::View, $url);
        $origin = $this->told->origins($client, $path->dialect)->of($view);
        $first = Query::first($url);
        $channels = $this->agreements->channels($client);

        return [
            'source' => $origin->keys['source'],
            'medium' => $origin->keys['medium'],
            'channel' => $origin->channel,
            'how' => $origin->how->value,
            'campaign' => $first[$channels->keys['campaign'] ?? 'utm_campaign'] ?? '',
            'content' => $first[$channels->keys['content'] ?? 'utm_content'] ?? '',
            'term' => $first[$channels->keys['term'] ?? 'utm_term'] ?? '',
            'wanted' => $plan?->channels[$path->dialect->family] ?? null,
            'parts' => self::parts($path),
        ];
    }

    /** @return list<array{of: string, part: string, value: string}> of names that follow their patterns */
    private static function parts(Path $path): array
    {
        $parts = [];
        foreach ($path->fields(false) as $field => $value) {
            [$of, $fact] = explode('.', $field, 2) + [1 => ''];
            if (str_starts_with($fact, Patterns::FACT) && $value !== '') {
                $parts[] = ['of' => $of, 'part' => substr($fact, strlen(Patterns::FACT)), 'value' => $value];
            }
        }

        return $parts;
    }
}
