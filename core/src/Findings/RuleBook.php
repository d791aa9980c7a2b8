<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Channel\Channels;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Naming\Patterns;

/** All rules, by what they look at. */
final readonly class RuleBook
{
    /**
     * @param list<TextRule> $texts
     * @param list<PathRule> $paths
     * @param list<ClickRule> $clicks
     * @param list<PlanRule> $plans
     */
    private function __construct(
        public array $texts,
        public array $paths,
        public array $clicks,
        public array $plans,
    ) {}

    /**
     * @param list<Dialect> $dialects all platforms that are known, to recognise their marks
     * @param Patterns $names that names follow
     */
    public static function all(array $dialects, Channels $channels, Patterns $names = new Patterns()): self
    {
        $foreign = new Text\ForeignTokens($dialects);

        return new self(
            [
                new Text\UnclosedToken(),
                new Text\UnknownToken($foreign),
                new Text\ForeignToken($foreign),
                new Text\TokenCase(),
                new Text\TokenNotHere(),
                new Text\NoLandingToken(),
                new Text\LandingTokenInSuffix(),
                new Text\LeadingMark(),
                new Text\SecondQuestionMark(),
                new Text\BehindFragment(),
                new Text\KeyTypo(),
                new Text\TooLong(),
                new Text\UnsafeCharacter(),
                new Text\NotLowercase(),
                new Text\SpaceInValue(),
                new Text\PersonalData(),
                new Text\InsecureLanding(),
            ],
            [
                new Path\CustomParameterUndefined(),
                new Path\RawLandingMark(),
                new Path\AutoTagConflict(),
                new Path\ClickIdOff(),
                new Path\StaleLiteral(),
                new Path\FrozenName(),
                new Path\TokenForOtherTypes(),
                new Path\IgnoredSlot(),
                new Path\Overridden(),
                new Path\NameOffPattern($names),
            ],
            self::arrivals($foreign),
            [
                new Agreement\CapitalsInPlan(),
                new Agreement\SpaceInPlan(),
                new Agreement\PersonalDataInPlan(),
                new Agreement\NotInVocabulary(),
                new Agreement\RetiredValue(),
                new Agreement\WrongChannel($channels, $dialects),
                new Agreement\IdWithoutName(),
            ],
        );
    }

    /** @return list<ClickRule> those that proofs ask, in the order in which faults are told */
    public static function breaking(): array
    {
        return array_values(
            array_filter(
                self::arrivals(new Text\ForeignTokens([])),
                static fn (ClickRule $rule): bool => $rule->breaks(),
            ),
        );
    }

    /** @return list<ClickRule> */
    private static function arrivals(Text\ForeignTokens $foreign): array
    {
        return [
            new Arrival\BrokenTrail(),
            new Arrival\MissingKey(),
            new Arrival\WrongValue(),
            new Arrival\EncodingDepth(),
            new Arrival\DuplicateKey(),
            new Arrival\EmptyValue(),
            new Arrival\ClickIdLost(),
            new Arrival\LandingDistorted(),
            new Arrival\RawTokenArrived($foreign),
        ];
    }
}
