<?php

declare(strict_types=1);

namespace Vestigon\Core\Learn;

use Vestigon\Core\Plan\Fields;

/** When the text that a placeholder holds counts: for which values of which field. */
final readonly class Condition
{
    /** What clicks are told apart by, as help pages say it (common practice, no source); the longest phrases first. */
    private const WORDS = [
        'network' => [
            'partner' => ['search partners', 'search partner', 'partner sites', 'partners', 'partner'],
            'display' => ['display network', 'content network', 'display', 'content', 'websites', 'sites', 'site'],
            'search' => ['search results', 'search network', 'search'],
        ],
        'device' => [
            'mobile' => ['mobile phones', 'mobile phone', 'smartphones', 'phones', 'phone', 'mobiles', 'mobile'],
            'tablet' => ['tablets', 'tablet'],
            'desktop' => ['desktops', 'desktop', 'computers', 'computer', 'laptops', 'laptop', 'pc'],
        ],
        'keyword.match' => ['exact' => ['exact'], 'phrase' => ['phrase'], 'broad' => ['broad']],
    ];

    private const NOT = '/ (not|unless|except|but|other than|no) /';

    /**
     * @param list<string> $is neutral values
     * @param bool $isSure do the words say nothing else?
     */
    private function __construct(public string $field, public array $is, public bool $isSure) {}

    /** @return self|null null: the words say none */
    public static function in(string $words): ?self
    {
        $left = HelpWords::folded($words);
        $found = [];
        foreach (self::WORDS as $field => $values) {
            foreach ($values as $value => $phrases) {
                foreach ($phrases as $phrase) {
                    if (str_contains($left, " {$phrase} ")) {
                        $found[$field][] = $value;
                        $left = str_replace(" {$phrase} ", ' _ ', $left);
                        break;
                    }
                }
            }
        }
        $field = array_key_first($found);
        if ($field === null) {
            return null;
        }
        $is = $found[$field];
        if (preg_match(self::NOT, $left) === 1) {
            $is = array_values(array_diff(Fields::LISTED[$field], $is));
        }

        $inOrder = array_values(array_intersect(Fields::LISTED[$field], $is));

        return $inOrder === [] ? null : new self($field, $inOrder, count($found) === 1);
    }
}
