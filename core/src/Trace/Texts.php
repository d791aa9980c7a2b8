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
    private function __construct(public ?SlotTemplate $template, public ?SlotTemplate $suffix, public ?SlotTemplate $landing, public CustomTexts $customs) {}

    public static function of(Path $path, TemplateReader $reader): self
    {
        $inheritance = new Inheritance($path);
        $read = static function (SlotKind $kind) use ($inheritance, $reader, $path): ?SlotTemplate {
            $text = $inheritance->effective($kind);
            if ($text === null) {
                return null;
            }
            $literal = $kind === SlotKind::Landing && ! ($path->dialect->slot($kind)->tokens ?? false);

            return new SlotTemplate($text, $literal ? Template::literal($text->text) : $reader->read($text->text));
        };
        $slots = array_map($read, SlotKind::cases());
        $templates = array_map(static fn (SlotTemplate $s): Template => $s->template, array_values(array_filter($slots)));

        return new self($slots[0], $slots[1], $slots[2], CustomTexts::usedBy($templates, $path, $reader));
    }

    /** @return list<Template> */
    public function templates(): array
    {
        $slots = array_values(array_filter([$this->template, $this->suffix, $this->landing]));

        return [...array_map(static fn (SlotTemplate $s): Template => $s->template, $slots), ...$this->customs->templates()];
    }
}
