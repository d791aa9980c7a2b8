<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Template\Template;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Url\QueryPiece;

/** A text and where it stands: in a slot, or as a custom parameter's value, on a level, for a campaign type. */
final readonly class Spot
{
    public Template $template;

    /** @var list<QueryPiece> */
    public array $pairs;

    /** @var list<string> keys whose values matter */
    public array $keys;

    /**
     * @param SlotKind|null $slot null: a custom parameter's value
     * @param string|null $custom the custom parameter's name
     * @param string $level level id
     * @param string|null $type campaign type; null: it stands above the campaigns
     */
    private function __construct(
        public Dialect $dialect,
        public ?SlotKind $slot,
        public ?string $custom,
        public string $level,
        public ?string $type,
        public string $text,
        public ?Plan $plan,
        TemplateReader $reader,
    ) {
        $this->template = $reader->read($text);
        $this->pairs = $this->template->queryInside($slot === SlotKind::Suffix)->pieces;
        $this->keys = Keys::of($plan);
    }

    public static function slot(
        Dialect $dialect,
        SlotKind $slot,
        string $level,
        ?string $type,
        string $text,
        TemplateReader $reader,
        ?Plan $plan = null,
    ): self {
        return new self($dialect, $slot, null, $level, $type, $text, $plan, $reader);
    }

    public static function custom(
        Dialect $dialect,
        string $name,
        string $level,
        ?string $type,
        string $text,
        TemplateReader $reader,
        ?Plan $plan = null,
    ): self {
        return new self($dialect, null, $name, $level, $type, $text, $plan, $reader);
    }

    /** Does the platform fill tokens here? */
    public function fillsTokens(): bool
    {
        return $this->slot !== SlotKind::Landing || ($this->dialect->slot(SlotKind::Landing)->tokens ?? false);
    }

    /** @return list<QueryPiece> keys and values; not the address that a template or landing URL begins with */
    public function parameters(): array
    {
        return match ($this->slot) {
            null => [],
            SlotKind::Suffix => $this->pairs,
            default => array_slice($this->pairs, 1),
        };
    }

    public function finding(
        string $code,
        Severity $severity,
        string $reason,
        ?int $at = null,
        int $length = 0,
        ?string $key = null,
        ?Fix $fix = null,
    ): Finding {
        return new Finding($code, $severity, $reason, null, $this->slot, $this->custom, $at, $length, $key, $fix);
    }

    /** A fix that puts another text in place of a stretch of this one. */
    public function instead(string $says, int $at, int $length, string $new): Fix
    {
        $text = substr_replace($this->text, $new, $at, $length);

        return new Fix($says, trim($text) === '' ? null : $text);
    }

    /** What the text is called: "suffix", "custom parameter route". */
    public function called(): string
    {
        return $this->slot->value ?? "custom parameter {$this->custom}";
    }
}
