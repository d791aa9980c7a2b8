<?php

declare(strict_types=1);

namespace Vestigon\Core\Learn;

use Vestigon\Core\Url\Query;

/**
 * The rules of a platform's document that a click's URL can tell of, each said otherwise than it is.
 *
 * @phpstan-import-type DialectDocument from RuleChange
 */
final readonly class RuleChoices
{
    private const ASSEMBLY = [
        'mendsQuestionMark' => [
            [true, 'a second ? becomes &'],
            [false, 'a second ? is sent as it stands'],
        ],
        'mendsFragment' => [
            [true, 'what stands behind # moves to the very end'],
            [false, 'what stands behind # stays where it is'],
        ],
        'suffixJoins' => [
            ['click', 'the suffix joins the whole click URL'],
            ['landing', 'the suffix joins the landing URL'],
        ],
    ];

    private const DEPTHS = [
        [0, 'as it is'],
        [1, 'encoded once'],
        [2, 'encoded twice'],
        ['auto', 'encoded unless the template begins with it'],
    ];

    /**
     * @param DialectDocument $document
     * @param string $texts all slots' texts
     * @return list<RuleChange>
     */
    public static function of(array $document, string $texts, string $url): array
    {
        $choices = [];
        foreach (self::ASSEMBLY as $rule => $values) {
            $now = $document['assembly'][$rule];
            foreach ($values as [$value, $says]) {
                if ($value !== $now) {
                    $choices[] = new RuleChange(['assembly', $rule], $now, $value, $says);
                }
            }
        }
        foreach ($document['tokens'] as $i => $token) {
            $isUsed = $token['kind'] === 'landing' && str_contains($texts, $token['name']);
            foreach ($isUsed ? self::DEPTHS : [] as [$depth, $says]) {
                if ($depth !== ($token['encode'] ?? 'auto')) {
                    $choices[] = new RuleChange(
                        ['tokens', $i, 'encode'],
                        $token['encode'] ?? null,
                        $depth,
                        "{$token['name']} gives the landing URL {$says}",
                    );
                }
            }
        }

        return [...$choices, ...self::clickIds($document, $texts, $url)];
    }

    /**
     * A key that no text says may be the click ID that the platform adds.
     *
     * @param DialectDocument $document
     * @return list<RuleChange>
     */
    private static function clickIds(array $document, string $texts, string $url): array
    {
        $now = $document['clickId'] ?? null;
        $keys = array_column(Query::read($url), 0);
        $choices = [];
        if ($now !== null && ! in_array($now['parameter'], $keys, true)) {
            $choices[] = new RuleChange(['clickId'], $now, null, 'no click ID is added');
        }
        foreach (array_unique($keys) as $key) {
            if ($key !== '' && $key !== ($now['parameter'] ?? '') && ! str_contains($texts, $key)) {
                $choices[] = new RuleChange(
                    ['clickId'],
                    $now,
                    ['parameter' => $key, 'switch' => 'always', 'default' => true],
                    "a click ID is added as {$key}",
                );
            }
        }

        return array_slice($choices, 0, 5);
    }
}
