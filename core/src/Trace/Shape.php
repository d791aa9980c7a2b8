<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Url\Query;

/**
 * A click URL that is made but for its values: fixed texts and places to fill. All clicks of an ad with the same conditions met
 * and the same values empty share one shape.
 */
final readonly class Shape
{
    /** @var list<string|Value> neighbouring texts made one */
    private array $clickSteps;

    /** @var list<string|Value> */
    private array $browserSteps;

    /** @var list<Segment|Piece> texts as finished segments, values as the pieces to fill */
    private array $parts;

    /**
     * @param Pieces|null $click null: there is no landing URL
     * @param Pieces|null $browser what the browser opens where that is not the click URL
     */
    public function __construct(public ?Pieces $click, public ?Pieces $browser)
    {
        $this->clickSteps = self::steps($click);
        $this->browserSteps = self::steps($browser);
        $this->parts = array_map(static fn (Piece $p): Segment|Piece => is_string($p->content) ? new Segment($p->content, $p->origin) : $p, $click->list ?? []);
    }

    /** @param array<string, string> $context */
    public function clickUrl(array $context): ?string
    {
        return $this->click === null ? null : self::filled($this->clickSteps, $context);
    }

    /** @param array<string, string> $context */
    public function trace(array $context, Trail $trail): Trace
    {
        if ($this->click === null) {
            return new Trace(null, null, null, [], null, [], []);
        }
        $segments = [];
        $clickUrl = '';
        foreach ($this->parts as $part) {
            if ($part instanceof Piece) {
                $part = new Segment($part->content instanceof Value ? $part->content->text($context) : $part->content, $part->origin);
            }
            $clickUrl .= $part->text;
            $segments[] = $part;
        }
        $browserUrl = $this->browser === null ? $clickUrl : self::filled($this->browserSteps, $context);
        $steps = $trail->from($browserUrl);
        [$last, $stop] = $steps[count($steps) - 1];
        $landed = $stop === Stop::Landed ? $last : null;

        return new Trace(
            $clickUrl,
            $browserUrl,
            $this->browser === null ? null : $clickUrl,
            $steps,
            $landed,
            $landed === null ? [] : Query::read($landed),
            $segments,
        );
    }

    /**
     * @param list<string|Value> $steps
     * @param array<string, string> $context
     */
    private static function filled(array $steps, array $context): string
    {
        $url = '';
        foreach ($steps as $step) {
            $url .= is_string($step) ? $step : $step->text($context);
        }

        return $url;
    }

    /** @return list<string|Value> */
    private static function steps(?Pieces $pieces): array
    {
        $steps = [];
        $text = '';
        foreach ($pieces->list ?? [] as $piece) {
            if (is_string($piece->content)) {
                $text .= $piece->content;
            } else {
                array_push($steps, $text, $piece->content);
                $text = '';
            }
        }
        $steps[] = $text;

        return $steps;
    }
}
