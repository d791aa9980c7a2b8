<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Template\TemplateReader;

/** What has been decided of a large account before its parts are compiled: see InParts. */
final readonly class Decided
{
    /**
     * @param list<Write> $writes on elements above the parts, in the order to apply
     * @param list<Unmet> $unmet what can't be had on those
     * @param list<Write> $overridden narrower texts among the writes
     * @param Way|null $way by which all ads are served; null: each part finds its own
     * @param array<string, CustomName> $names of custom parameters, by field and shape
     */
    public function __construct(
        public array $writes = [],
        public array $unmet = [],
        public array $overridden = [],
        public ?Way $way = null,
        public array $names = [],
    ) {}

    /**
     * What has been decided before, and what was found on some ads.
     *
     * @param list<string> $above the elements that it is decided for
     */
    public function and(Task $task, Compiled $found, array $above): self
    {
        $above = array_fill_keys($above, true);
        $is = static fn (Write|Unmet $one): bool => isset($above[$one->node]);
        $way = $found->way ?? $this->way;
        $settings = Write::applied($task->account, $found->writes)->settings;

        return new self(
            [...$this->writes, ...array_values(array_filter($found->writes, $is))],
            [...$this->unmet, ...array_values(array_filter($found->unmet, $is))],
            [...$this->overridden, ...array_values(array_filter($found->overridden, $is))],
            $way,
            $way === null
                ? $this->names
                : (new Wording($task->switched($settings), $way, new TemplateReader($task->account->dialect)))->customs,
        );
    }

    /** Does the same follow for the parts? */
    public function is(self $other): bool
    {
        return [$this->writes, $this->way, $this->names] == [$other->writes, $other->way, $other->names];
    }

    /** @return list<Write> those on what a part of the account has */
    public function writesIn(Account $part): array
    {
        return array_values(array_filter($this->writes, static fn (Write $w): bool => isset($part->nodes[$w->node])));
    }
}
