<?php

namespace App\Http\Requests;

use App\Links\Wanted;

/** Links as somebody wishes for them: page, what each is to carry, and whether it gets a short address. */
final class LinksRequest extends ApiRequest
{
    public const MOST = 1000;

    private const FIELDS = ['landing', 'pairs', 'title', 'short', 'code', 'host'];

    /** Characters of a field; what is too long for a link is said by its findings. */
    private const LONGEST = ['landing' => 200_000, 'title' => 200, 'code' => 200, 'host' => 191];

    private const PAIRS = 40;

    private const KEY = 100;

    private const VALUE = 2000;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'rows' => [
                'required',
                'array',
                'list',
                'max:'.self::MOST,
                static function (string $field, mixed $rows, \Closure $fail): void {
                    foreach (is_array($rows) ? $rows : [] as $i => $row) {
                        $wrong = self::wrong($row);
                        if ($wrong !== null) {
                            $fail('Row '.($i + 1)." {$wrong}");

                            return;
                        }
                    }
                },
            ],
        ];
    }

    /** @return list<Wanted> */
    public function wanted(): array
    {
        return array_map(Wanted::of(...), $this->validated('rows'));
    }

    private static function wrong(mixed $row): ?string
    {
        if (! is_array($row) || ! is_string($row['landing'] ?? null)) {
            return 'has no page that it leads to.';
        }
        $more = array_diff(array_keys($row), self::FIELDS);
        if ($more !== []) {
            return 'has '.implode(', ', $more).', which a link has not.';
        }
        foreach (self::LONGEST as $name => $most) {
            $text = $row[$name] ?? '';
            if (! is_string($text) || mb_strlen($text) > $most) {
                return "has a {$name} that is no text of at most {$most} characters.";
            }
        }
        if (! is_bool($row['short'] ?? false)) {
            return 'says neither yes nor no to a short address.';
        }
        $pairs = $row['pairs'] ?? [];
        if (! is_array($pairs) || count($pairs) > self::PAIRS) {
            return 'is to carry what are not at most '.self::PAIRS.' keys with a value each.';
        }
        foreach ($pairs as $key => $value) {
            if ((string) $key === '' || mb_strlen((string) $key) > self::KEY) {
                return 'has a key without a name of at most '.self::KEY.' characters.';
            }
            if ($value !== null && (! is_string($value) || mb_strlen($value) > self::VALUE)) {
                return "has a value of {$key} that is no text of at most ".self::VALUE.' characters.';
            }
        }

        return null;
    }
}
