<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Url\Query;

/**
 * A click URL that is made but for its values: fixed texts and places to fill. All clicks of an ad with the same
 * conditions met and the same values empty share one shape.
 */
final class Blueprint
{
    /** @var list<string|Value>|null neighbouring texts made one; made when first asked for */
    private ?array $clickSteps = null;

    /** @var list<string|Value>|null */
    private ?array $browserSteps = null;

    /** @var list<string|Value>|null */
    private ?array $landingSteps = null;

    /** @var list<Segment|Piece>|null texts as finished segments, values as the pieces to fill */
    private ?array $parts = null;

    /**
     * @param Pieces|null $click null: there is no landing URL
     * @param Pieces|null $browser what the browser opens where that is not the click URL
     * @param Pieces|null $landing the landing URL itself, before anything joins it
     */
    public function __construct(
        public readonly ?Pieces $click,
        public readonly ?Pieces $browser,
        private readonly ?Pieces $landing = null,
    ) {}

    /** @param array<string, string> $context */
    public function clickUrl(array $context): ?string
    {
        return $this->click === null
            ? null
            : self::filled($this->clickSteps ??= self::steps($this->click), $context);
    }

    /**
     * What the browser opens, each of its values as somebody else writes it.
     *
     * @param \Closure(Value): string $write
     */
    public function written(\Closure $write): ?string
    {
        if ($this->click === null) {
            return null;
        }
        $steps = $this->browser === null
            ? $this->clickSteps ??= self::steps($this->click)
            : $this->browserSteps ??= self::steps($this->browser);

        return implode(
            '',
            array_map(static fn (string|Value $step): string => is_string($step) ? $step : $write($step), $steps),
        );
    }

    /** @param array<string, string> $context */
    public function landing(array $context): ?string
    {
        return $this->landing === null
            ? null
            : self::filled($this->landingSteps ??= self::steps($this->landing), $context);
    }

    /** @param array<string, string> $context */
    public function trace(array $context, Trail $trail): Trace
    {
        if ($this->click === null) {
            return new Trace(null, null, null, [], null, [], []);
        }
        $segments = [];
        $clickUrl = '';
        foreach ($this->parts ??= self::parts($this->click) as $part) {
            if ($part instanceof Piece) {
                $part = new Segment(
                    $part->content instanceof Value ? $part->content->text($context) : $part->content,
                    $part->origin,
                );
            }
            $clickUrl .= $part->text;
            $segments[] = $part;
        }
        $browserUrl =
            $this->browser === null
                ? $clickUrl
                : self::filled($this->browserSteps ??= self::steps($this->browser), $context);
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

    /** @return list<Segment|Piece> */
    private static function parts(Pieces $pieces): array
    {
        $parts = [];
        foreach ($pieces->list as $piece) {
            $parts[] = is_string($piece->content) ? new Segment($piece->content, $piece->origin) : $piece;
        }

        return $parts;
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
