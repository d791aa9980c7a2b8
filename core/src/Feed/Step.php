<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

use Vestigon\Core\Url\Encoding;
use Vestigon\Core\Url\LinkQuery;

/** One thing that a rule does to a link. */
final readonly class Step
{
    public string $encodedKey;

    /** The value encoded; null: it reads columns. */
    public ?string $always;

    /**
     * @param list<Part> $parts the value of what is set or added
     * @param string $to what a key is renamed to
     */
    public function __construct(
        public StepKind $kind,
        public string $key,
        public array $parts = [],
        public string $to = '',
    ) {
        $this->encodedKey = Encoding::encode($kind === StepKind::Rename ? $to : $key);
        $isSame = array_filter($parts, static fn (Part $p): bool => $p->text === null) === [];
        $this->always = $isSame ? Encoding::encode(implode('', array_column($parts, 'text'))) : null;
    }

    /** @return bool false: the value is needed, and there is none */
    public function follow(LinkQuery $link, ?string $value): bool
    {
        if ($this->kind === StepKind::Take) {
            $link->take($this->key);
        } elseif ($this->kind === StepKind::Rename) {
            $link->rename($this->key, $this->to, $this->encodedKey);
        } elseif ($this->kind === StepKind::Set || ! $link->has($this->key)) {
            if ($value === null) {
                return false;
            }
            $link->set($this->key, $this->encodedKey, $value);
        }

        return true;
    }

    /**
     * @param array<string, string> $item
     * @return string|null encoded; null: a column of it is empty
     */
    public function value(array $item): ?string
    {
        if ($this->always !== null) {
            return $this->always;
        }
        $value = '';
        foreach ($this->parts as $part) {
            if ($part->text !== null) {
                $value .= $part->text;

                continue;
            }
            $cell = $part->shape->of($item[$part->column] ?? '');
            if ($cell === '') {
                return null;
            }
            $value .= $cell;
        }

        return Encoding::encode($value);
    }
}
