<?php

namespace App\Sheets\Files;

use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\JsonItems;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Trace\Settings;

/**
 * An account document (`vestigon.account/1`) as a table: a row for each node, headed by what a map would say of each
 * column. What stands above a node is found by its parents, which need not come before it.
 */
final class AccountTable implements Table
{
    private const OWN = ['level', 'id', 'name', 'type', 'standing', 'publishedName'];

    private const MAPS = ['slots' => 'slot', 'custom' => 'custom', 'attributes' => 'attribute'];

    /** @var array<string, array{level: string, parent: string|null}>|null by id: nodes that others stand below */
    private ?array $above = null;

    /** @var list<string> */
    private array $headings = [];

    /** @var array<string, string> what the account switches, by heading */
    private array $settings = [];

    private function __construct(private readonly string $path, private readonly string $name) {}

    /** @return self|null null: it is no such document */
    public static function of(string $path, string $name): ?self
    {
        $start = ltrim((string) file_get_contents($path, length: 1 << 12), "\xEF\xBB\xBF \t\r\n");

        return preg_match('~^\{.*"format"\s*:\s*"vestigon\.account\\\\?/1"~s', $start) === 1
            ? new self($path, $name)
            : null;
    }

    public function title(): string
    {
        return (string) preg_replace('/\.json$/i', '', $this->name);
    }

    public function form(): Form
    {
        return new Form('csv', ',', 'UTF-8', 'An account as JSON: what changes goes out as CSV.');
    }

    public function rows(): iterable
    {
        $above = $this->above ??= $this->above();
        yield $this->headings;
        foreach ($this->nodes() as $i => $node) {
            $cells = array_intersect_key($node, array_flip(self::OWN));
            $seen = [];
            $id = $node['parent'] ?? null;
            while (isset($above[$id]) && ! isset($seen[$id])) {
                $seen[$id] = true;
                $cells["{$above[$id]['level']}.id"] = $id;
                $id = $above[$id]['parent'];
            }
            foreach (self::MAPS as $member => $means) {
                foreach (is_array($node[$member] ?? null) ? $node[$member] : [] as $key => $value) {
                    $cells["{$means}.{$key}"] = $value;
                }
            }
            if (! isset($node['parent'])) {
                $cells += $this->settings;
            }
            $cells = array_map(fn (mixed $c): ?string => $this->cell($c, $i), $cells);
            yield array_map(static fn (string $h): ?string => $cells[$h] ?? null, $this->headings);
        }
    }

    /**
     * Goes through the document for what stands above its nodes, and for the headings that they need.
     *
     * @return array<string, array{level: string, parent: string|null}>
     */
    private function above(): array
    {
        $parents = $headings = [];
        foreach ($this->nodes($beside) as $node) {
            if (isset($node['parent'])) {
                $parents[(string) $node['parent']] = true;
            }
            foreach (self::MAPS as $member => $means) {
                foreach (is_array($node[$member] ?? null) ? array_keys($node[$member]) : [] as $key) {
                    $headings["{$means}.{$key}"] = true;
                }
            }
        }
        $this->settings = self::switched($beside['settings'] ?? []);
        $headings += array_fill_keys(array_keys($this->settings), true);
        TooWide::refuse(count($headings), 1, $this->name);
        $above = $levels = [];
        foreach ($this->nodes() as $node) {
            if (isset($parents[(string) $node['id']])) {
                $parent = isset($node['parent']) ? (string) $node['parent'] : null;
                $above[(string) $node['id']] = ['level' => (string) $node['level'], 'parent' => $parent];
                $levels["{$node['level']}.id"] = true;
            }
        }
        $this->headings = array_map(strval(...), [...self::OWN, ...array_keys($levels), ...array_keys($headings)]);

        return $above;
    }

    /**
     * @return array<string, string> by heading
     *
     * @throws UnusableInput
     */
    private static function switched(mixed $document): array
    {
        $settings = Settings::read(new Cursor($document, 'settings'));
        $switched = [];
        foreach (Setting::cases() as $setting) {
            $switched["setting.{$setting->value}"] = $settings->text($setting);
        }

        return array_filter($switched, is_string(...));
    }

    /**
     * @param array<mixed>|null $beside gets the document's other members, once the nodes have been gone through
     * @return iterable<int, array<string, mixed>> each with a level and an id
     *
     * @throws UnusableInput
     */
    private function nodes(?array &$beside = null): iterable
    {
        $file = fopen($this->path, 'rb') ?: throw new \RuntimeException("{$this->path} can't be read");
        try {
            $items = JsonItems::ofStream($file, 'nodes');
            foreach ($items as $i => $item) {
                foreach (['level', 'id'] as $member) {
                    $item->at($member)->text();
                }
                yield $i => (array) $item->value;
            }
            $beside = $items->beside;
        } catch (UnusableInput $e) {
            throw new UnusableInput("{$this->name}: {$e->getMessage()}");
        } finally {
            fclose($file);
        }
    }

    /** @throws UnusableInput */
    private function cell(mixed $value, int $node): ?string
    {
        return match (true) {
            $value === null => null,
            is_scalar($value) => is_bool($value) ? var_export($value, true) : (string) $value,
            default => throw new UnusableInput("{$this->name}: node {$node} holds a list where a text is wanted"),
        };
    }
}
