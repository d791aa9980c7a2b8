<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Path;

use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\PathRule;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Standing;
use Vestigon\Core\Template\Element\CustomParameter;
use Vestigon\Core\Trace\SlotTemplate;
use Vestigon\Core\Url\QueryPiece;

/**
 * custom-parameter-undefined: a text uses a custom parameter that nobody on the way up has set.
 *
 * It is no error where a plan's key carries it: an ad that does not have what the key is to carry sends the key with
 * nothing in it, as it should, and the proof tells those that should send more.
 */
final readonly class CustomParameterUndefined implements PathRule
{
    public function check(Standing $standing): iterable
    {
        $queries = [];
        foreach ($standing->parts() as [$part, $owner, $slot]) {
            if ($part instanceof CustomParameter && $standing->texts->customs->get($part->name) === null) {
                yield new Finding(
                    'custom-parameter-undefined',
                    self::isProven(
                        $part,
                        $queries[$slot->slot->kind->value] ??= self::parameters($slot, $standing),
                        $standing,
                    )
                        ? Severity::Note
                        : Severity::Error,
                    "{$part->source} is set neither on the ad nor above it, so it gives nothing.",
                    $owner,
                    $slot->slot->kind,
                    at: $slot->slot->within($part->offset),
                    length: strlen($part->source),
                );
            }
        }
    }

    /** @return list<QueryPiece> */
    private static function parameters(SlotTemplate $slot, Standing $standing): array
    {
        return $standing->plan === null
            ? []
            : $slot->template->queryInside($slot->slot->kind === SlotKind::Suffix)->parameters();
    }

    /**
     * Does it stand in a parameter that is the plan's?
     *
     * @param list<QueryPiece> $parameters of the text
     */
    private static function isProven(CustomParameter $part, array $parameters, Standing $standing): bool
    {
        foreach ($parameters as $piece) {
            if ($piece->at <= $part->offset && $part->offset < $piece->at + strlen($piece->text)) {
                return $piece->hasKey(...$standing->plan?->keys() ?? []);
            }
        }

        return false;
    }
}
