<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Template\Template;
use Vestigon\Core\Template\TemplateReader;

/** All texts that count for one ad, read once. */
final readonly class Texts
{
    private function __construct(
        public ?SlotTemplate $template,
        public ?SlotTemplate $suffix,
        public ?SlotTemplate $landing,
        public CustomTexts $customs,
    ) {}

    public static function of(Path $path, TemplateReader $reader): self
    {
        $inheritance = new Inheritance($path);
        $read = static function (SlotKind $kind) use ($inheritance, $reader, $path): ?SlotTemplate {
            $text = $inheritance->effective($kind);
            if ($text === null) {
                return null;
            }
            $literal = $kind === SlotKind::Landing && ! ($path->dialect->slot($kind)->tokens ?? false);

            return new SlotTemplate(
                $text,
                $literal ? Template::literal($text->text) : $reader->read($text->text),
            );
        };
        [$template, $suffix, $landing] = [
            $read(SlotKind::Template),
            $read(SlotKind::Suffix),
            $read(SlotKind::Landing),
        ];

        return new self(
            $template,
            $suffix,
            $landing,
            CustomTexts::usedBy(self::read($template, $suffix, $landing), $path, $reader),
        );
    }

    /** @return list<Template> */
    public function templates(): array
    {
        return [...self::read($this->template, $this->suffix, $this->landing), ...$this->customs->templates()];
    }

    /** @return list<Template> */
    private static function read(?SlotTemplate ...$slots): array
    {
        $templates = [];
        foreach ($slots as $slot) {
            if ($slot !== null) {
                $templates[] = $slot->template;
            }
        }

        return $templates;
    }
}
