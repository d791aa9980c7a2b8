<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Url\Encoding;
use Vestigon\Core\Url\Utf8;

/** A place in a URL that each click fills anew: a field, the platform's spelling of it, and how often it is encoded. */
final readonly class Value
{
    /**
     * @param int $times at least 1, so that what it gives holds no `?`, `#` or `&`
     * @param array<string, string>|null $values the platform's spelling of each value
     * @param string $otherwise what stands here, encoded, when the click does not say the field
     */
    private function __construct(
        public string $field,
        private int $times,
        private bool $plusForSpace,
        private ?array $values,
        private string $known,
        private string $otherwise,
    ) {}

    /**
     * @param string $known the field's value where the click does not say it
     * @param array<string, string>|null $values
     */
    public static function of(string $field, string $known, int $times, bool $plusForSpace, ?array $values): self
    {
        $spelled = $values === null ? $known : $values[$known] ?? '';

        return new self(
            $field,
            $times,
            $plusForSpace,
            $values,
            $known,
            Encoding::encode($spelled, $times, $plusForSpace),
        );
    }

    public function encoded(int $more): self
    {
        return self::of($this->field, $this->known, $this->times + $more, $this->plusForSpace, $this->values);
    }

    /**
     * What it is in a URL for a value: hops may have decoded it on the way.
     *
     * @return list<string>
     */
    public function writings(string $value): array
    {
        $spelled = $this->values === null ? $value : $this->values[$value] ?? '';
        $writings = [];
        foreach ([$spelled, Utf8::mended($spelled)] as $text) {
            for ($times = $this->times; $times >= 0; $times--) {
                $writings[] = Encoding::encode($text, $times, $this->plusForSpace);
            }
        }

        return array_values(array_unique($writings));
    }

    /**
     * What a click may have said, where this stands in a URL: hops may have decoded it on the way.
     *
     * @return list<string>
     */
    public function readings(string $text): array
    {
        if ($text === '') {
            return ['']; // the click did not say it
        }
        $readings = $now = [$text];
        for ($i = 0; $i < $this->times; $i++) {
            $now = array_unique(array_merge(array_map(rawurldecode(...), $now), array_map(urldecode(...), $now)));
            array_push($readings, ...$now);
        }
        $readings = array_reverse(array_values(array_unique($readings)));
        if ($this->values === null) {
            return $readings;
        }

        return array_map(strval(...), array_keys(array_intersect($this->values, $readings)));
    }

    /** @param array<string, string> $context field → value */
    public function text(array $context): string
    {
        if (! isset($context[$this->field])) {
            return $this->otherwise;
        }
        $text = $context[$this->field];
        if ($this->values !== null) {
            $text = $this->values[$text] ?? '';
        }

        return $this->times === 1 && ! $this->plusForSpace
            ? rawurlencode($text)
            : Encoding::encode($text, $this->times, $this->plusForSpace);
    }
}
