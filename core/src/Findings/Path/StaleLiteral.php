<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Path;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Fix;
use Vestigon\Core\Findings\PathRule;
use Vestigon\Core\Findings\PlanWords;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Standing;
use Vestigon\Core\Plan\Slug;
use Vestigon\Core\Trace\SlotTemplate;
use Vestigon\Core\Url\Query;
use Vestigon\Core\Url\QueryPiece;

/** stale-literal: fixed text that names another campaign than the one it is on; it was copied along. */
final readonly class StaleLiteral implements PathRule
{
    /**
     * Is there anything in the texts that could name a campaign? If not, it does not matter which campaign they are on.
     */
    public static function applies(Standing $standing): bool
    {
        foreach ($standing->counting() as $slot) {
            foreach (self::naming($slot) as $pair) {
                return true;
            }
        }

        return false;
    }

    public function check(Standing $standing): iterable
    {
        $campaign = $standing->path->withRole(Role::Campaign);
        if ($campaign === null) {
            return;
        }
        foreach ($standing->counting() as $slot) {
            foreach (self::naming($slot) as $pair) {
                $value = Query::decoded((string) $pair->value);
                $other = $standing->campaigns->other($value, $campaign);
                if (
                    $other === null
                    || PlanWords::says($standing->plan, $pair->name(), $value)
                    || ! PlanWords::mayNameCampaign($standing->plan, $pair->name())
                ) {
                    continue; // what the plan itself wants is nobody's copy
                }
                $owner = $slot->slot->ownerAt($pair->at);
                $own = $value === $other->id ? $campaign->id : Slug::of($campaign->name);
                yield new Finding(
                    'stale-literal',
                    Severity::Error,
                    "{$pair->key} says “{$value}”, which is the campaign “{$other->name}”, but the ad is in "
                        ."“{$campaign->name}”.",
                    $owner,
                    $slot->slot->kind,
                    at: $slot->slot->within($pair->valueAt),
                    length: strlen((string) $pair->value),
                    key: $pair->key,
                    fix: $this->fix(
                        $owner,
                        $campaign,
                        $slot->slot->kind,
                        $slot->slot->within($pair->valueAt),
                        (string) $pair->value,
                        $own,
                    ),
                );
            }
        }
    }

    /** @return iterable<QueryPiece> fixed values of keys that carry a campaign's name or number */
    private static function naming(SlotTemplate $slot): iterable
    {
        foreach (
            array_slice(
                $slot->template->queryInside($slot->slot->kind === SlotKind::Suffix)->pieces,
                $slot->slot->kind === SlotKind::Suffix ? 0 : 1,
            ) as $pair
        ) {
            if (
                $pair->value !== null
                && $pair->valueFixed
                && (stripos($pair->key, 'camp') !== false || stripos($pair->key, '_id') !== false)
            ) {
                yield $pair;
            }
        }
    }

    /** Only a text below the campaign's siblings can name the campaign. */
    private function fix(Node $owner, Node $campaign, SlotKind $kind, int $at, string $was, string $own): ?Fix
    {
        $text = $owner->slot($kind);

        return $text === null || ($owner->type === null && $owner->level === 'account')
            ? null
            : new Fix("write {$own}", substr_replace($text, rawurlencode($own), $at, strlen($was)));
    }
}
