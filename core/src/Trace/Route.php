<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\TokenKind;
use Vestigon\Core\Template\Element\CatalogueToken;
use Vestigon\Core\Template\Element\Conditional;
use Vestigon\Core\Template\TemplateReader;

/**
 * One ad, ready for many clicks: its texts are read once, and each shape that its clicks take is made once.
 *
 * Same ad, same context: same result, always; the shapes kept here only save time.
 */
final class Route
{
    private const MOST_SHAPES = 512;

    /** @var array<string, Blueprint> by what decides the shape */
    private array $shapes = [];

    /**
     * @var list<array{string, array<string, string>|null}> fields of which it matters whether they give anything, and
     *     their spelling
     */
    private array $emptiness = [];

    /** @var list<array{string, list<string>}> fields and the values that meet a condition */
    private array $conditions = [];

    /** @var list<string> fields that are put in as they are */
    private array $rawFields = [];

    private bool $symbolic = true;

    /** @param array<string, string> $known the field values that the path gives */
    private function __construct(
        private readonly Assembler $maker,
        private readonly Trail $trail,
        private readonly array $known,
        Texts $texts,
        Path $path,
    ) {
        $fields = ['click.id' => null];
        foreach ($path->dialect->autoTags->tags ?? [] as $tag) {
            if ($tag->field !== null) {
                $fields[$tag->field] = null;
            }
        }
        $this->emptiness = array_map(static fn (string $f): array => [$f, null], array_keys($fields));
        $seen = [];
        foreach ($texts->templates() as $template) {
            foreach ($template->walk() as $part) {
                if ($part instanceof Conditional && ! isset($seen[$part->token->name])) {
                    $this->conditions[] = [$part->token->field, $part->token->is];
                } elseif (
                    $part instanceof CatalogueToken
                    && $part->token->kind === TokenKind::Value
                    && ! isset($seen[$part->token->name])
                ) {
                    $this->emptiness[] = [$part->token->field, $part->token->values];
                    if ($part->token->encode === 0) {
                        $this->symbolic = false;
                        $this->rawFields[] = $part->token->field;
                    }
                }
                if ($part instanceof Conditional || $part instanceof CatalogueToken) {
                    $seen[$part->token->name] = true;
                }
            }
        }
    }

    /** @param list<Hop> $hops */
    public static function of(
        Path $path,
        Settings $settings = new Settings(),
        array $hops = [],
        ?TemplateReader $reader = null,
    ): self {
        return self::with(
            $path,
            Texts::of($path, $reader ?? new TemplateReader($path->dialect)),
            $settings,
            $hops,
        );
    }

    /**
     * The same, with texts that were found before.
     *
     * @param list<Hop> $hops
     */
    public static function with(Path $path, Texts $texts, Settings $settings, array $hops): self
    {
        return new self(
            new Assembler($path, $texts, $settings),
            Trail::through($hops),
            $path->fields($path->dialect->namesFreeze),
            $texts,
            $path,
        );
    }

    /**
     * One click of an ad: the same as of()->trace(), without what many clicks need.
     *
     * @param array<string, string> $context
     * @param list<Hop> $hops
     */
    public static function once(
        Path $path,
        array $context,
        Settings $settings = new Settings(),
        array $hops = [],
        ?TemplateReader $reader = null,
    ): Trace {
        $maker = new Assembler($path, Texts::of($path, $reader ?? new TemplateReader($path->dialect)), $settings);

        return self::literal($maker, $context + $path->fields($path->dialect->namesFreeze))->trace(
            $context,
            Trail::through($hops),
        );
    }

    /** @param array<string, string> $context field → value; wins over what the path gives */
    public function clickUrl(array $context): ?string
    {
        return $this->shape($context)->clickUrl($context);
    }

    /** @param array<string, string> $context */
    public function trace(array $context): Trace
    {
        return $this->shape($context)->trace($context, $this->trail);
    }

    /**
     * Where the landing URL alone leads: through the hops that it may name, to the landing page.
     *
     * @param array<string, string> $context
     */
    public function page(array $context): ?string
    {
        $landing = $this->shape($context)->landing($context);
        $trail = $landing === null ? [] : $this->trail->from($landing);
        [$url, $stop] = $trail === [] ? [null, null] : $trail[count($trail) - 1];

        return $stop === Stop::Landed ? $url : $landing;
    }

    /** @return list<string> the fields that its clicks depend on */
    public function fields(): array
    {
        return array_values(
            array_unique([...array_column($this->emptiness, 0), ...array_column($this->conditions, 0)]),
        );
    }

    /**
     * @return array<string, bool> the fields that its clicks depend on → whether what a value is matters, and not only
     *     that it is there
     */
    public function usage(): array
    {
        $usage = array_fill_keys($this->rawFields, true);
        foreach ($this->conditions as [$field]) {
            $usage[$field] = true;
        }
        foreach ($this->emptiness as [$field, $values]) {
            $usage[$field] = ($usage[$field] ?? false) || $values !== null;
        }

        return $usage;
    }

    /** @param array<string, string> $context */
    public function shape(array $context): Blueprint
    {
        if (! $this->symbolic) {
            return self::literal($this->maker, $context + $this->known);
        }
        $key = '';
        foreach ($this->emptiness as [$field, $values]) {
            $value = $context[$field] ?? ($this->known[$field] ?? '');
            $key .= ($values === null ? $value : $values[$value] ?? '') === '' ? '0' : '1';
        }
        foreach ($this->conditions as [$field, $is]) {
            $key .= in_array($context[$field] ?? ($this->known[$field] ?? ''), $is, true) ? '1' : '0';
        }

        return $this->shapes[$key] ?? $this->newShape($key, $context);
    }

    /** @param array<string, string> $values */
    private static function literal(Assembler $maker, array $values): Blueprint
    {
        return $maker->make($values, false)
            ?? throw new \LogicException('a shape with its values written in can always be made');
    }

    /** @param array<string, string> $context */
    private function newShape(string $key, array $context): Blueprint
    {
        $shape = $this->maker->make($context + $this->known, true);
        if ($shape === null) {
            $this->symbolic = false;

            return $this->shape($context);
        }
        if (count($this->shapes) >= self::MOST_SHAPES) {
            $this->shapes = [];
        }

        return $this->shapes[$key] = $shape;
    }
}
