<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Account\Node;

/** What one click sends: the result of tracing an ad in a click context. */
final readonly class Trace
{
    /**
     * @param string|null $clickUrl null if the ad has no landing URL
     * @param string|null $browserUrl what the browser opens
     * @param string|null $backgroundUrl what is called in the background (parallel delivery)
     * @param list<array{string, Stop}> $trail from the browser's URL to the landing page
     * @param string|null $landed the landing page's URL as it arrives; null if the trail does not get there
     * @param list<array{string, string}> $arrival the pairs that the landing page reads
     * @param list<Segment> $segments put end to end they are the click URL
     */
    public function __construct(
        public ?string $clickUrl,
        public ?string $browserUrl,
        public ?string $backgroundUrl,
        public array $trail,
        public ?string $landed,
        public array $arrival,
        public array $segments,
    ) {}

    /** The same trace of another ad: what came from the one comes from the other. */
    public function movedTo(Node $from, Node $to): self
    {
        $segments = $this->segments;
        foreach ($segments as $i => $segment) {
            $o = $segment->origin;
            if ($o->node === $from) {
                $segments[$i] = new Segment(
                    $segment->text,
                    new Origin($o->role, $o->slot, $to, $o->token, $o->field),
                );
            }
        }

        return new self(
            $this->clickUrl,
            $this->browserUrl,
            $this->backgroundUrl,
            $this->trail,
            $this->landed,
            $this->arrival,
            $segments,
        );
    }

    /** @return array<string, mixed> as `vestigon.trace/1` */
    public function toArray(): array
    {
        return [
            'format' => 'vestigon.trace/1',
            'clickUrl' => $this->clickUrl,
            'browserUrl' => $this->browserUrl,
            'backgroundUrl' => $this->backgroundUrl,
            'trail' => array_map(static fn (array $step): array => [$step[0], $step[1]->value], $this->trail),
            'landed' => $this->landed,
            'arrival' => $this->arrival,
            'segments' => array_map(static fn (Segment $s): array => $s->toArray(), $this->segments),
        ];
    }
}
