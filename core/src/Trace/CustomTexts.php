<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Template\Template;
use Vestigon\Core\Template\TemplateReader;

/** The custom parameters that some templates use on a path, found and read. */
final readonly class CustomTexts
{
    /** @param array<string, CustomText> $byName */
    private function __construct(private array $byName) {}

    /** @param list<Template> $templates */
    public static function usedBy(array $templates, Path $path, TemplateReader $reader): self
    {
        $byName = [];
        foreach ($templates as $template) {
            foreach ($template->customNames as $name => $_) {
                $value = isset($byName[$name]) ? null : $path->ownerOf((string) $name);
                if ($value !== null) {
                    $byName[$name] = new CustomText($value->node, $reader->read($value->text));
                }
            }
        }

        return new self($byName);
    }

    public function get(string $name): ?CustomText
    {
        return $this->byName[$name] ?? null;
    }

    /** @return array<string, Node> name, as it is used → the node that gives it */
    public function owners(): array
    {
        return array_map(static fn (CustomText $t): Node => $t->node, $this->byName);
    }

    /** @return list<Template> */
    public function templates(): array
    {
        return array_map(static fn (CustomText $t): Template => $t->template, array_values($this->byName));
    }
}
