<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Inherit;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Url\Query;
use Vestigon\Core\Url\QueryPiece;

/**
 * Moves what of theirs spoils the page to where it arrives unspoilt.
 *
 * What a template says behind the landing URL comes to stand behind the page's `#`, where nobody reads it; in a suffix
 * it stands before. What a template says behind a `#` of its own changes the page's fragment: parameters there become
 * parameters, other text is left out.
 */
final readonly class Tidying
{
    /** @param list<string> $ours the plan's keys on this platform */
    public function __construct(
        private Dialect $dialect,
        private TemplateReader $reader,
        private string $rawLanding,
        private array $ours,
    ) {}

    /**
     * @param array<string, string> $texts by slot kind, as they count on the path, without the plan's keys
     * @return array<string, string>
     */
    public function of(array $texts, Path $path): array
    {
        $pieces = $this->reader->read($texts['template'])->query(false)->pieces;
        if ($this->rawLanding === '' || $pieces[0]->text !== $this->rawLanding) {
            return $texts; // over hops it is another matter
        }
        $theirs = array_filter(
            array_slice($pieces, 1),
            fn (QueryPiece $p): bool => $p->text !== ''
                && ($p->isParameter
                    || ($p->value !== null && $p->keyFixed && ! in_array($p->name(), $this->ours, true))),
        );
        $query = implode('&', array_map(static fn (QueryPiece $p): string => $p->text, $theirs));
        $slot = $this->dialect->slot(SlotKind::Suffix);
        if (
            $slot !== null
            && $slot->inherit !== Inherit::Gather
            && $slot->countsAt($path->last()->level, $path->campaignType())
        ) {
            $query = (string) $this->reader->read($query)->withoutDead(SlotKind::Suffix, $path->campaignType());

            return [
                'template' => $this->rawLanding,
                'suffix' => ltrim(Query::join("?{$query}", $texts['suffix']), '?'),
            ] + $texts;
        }

        return [
            'template' => $query === ''
                    ? $this->rawLanding
                    : $this->rawLanding.($pieces[1]->mark === '&' ? '&' : '?').$query,
        ] + $texts;
    }
}
