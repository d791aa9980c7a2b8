<?php

namespace App\Results;

use App\Accounts\NamedNodes;
use App\Accounts\Trees;
use App\Agreements\Agreements;
use App\Models\Account;
use App\Models\Client;
use App\Models\Node;
use Illuminate\Support\Collection;
use Vestigon\Core\Dialect\Level;
use Vestigon\Core\Naming\Patterns;

/**
 * Results by parts of names, as they are called today: they are told by the elements that have the names, and those
 * with the same part added up.
 */
final readonly class NameParts
{
    private const AT_ONCE = 1000;

    private const OF = [
        'campaign' => Dimension::AdCampaign,
        'group' => Dimension::AdGroup,
        'ad' => Dimension::Ad,
    ];

    public function __construct(private Agreements $agreements) {}

    /** @return list<string> fields like `campaign.part.market` that lines can be told by */
    public function fields(Client $client): array
    {
        return array_values(
            array_filter(
                $this->agreements->names($client->id)->fields(),
                static fn (string $field): bool => self::dimension($field) !== null,
            ),
        );
    }

    /** What has the name that a field is a part of; null: it is no such field. */
    public static function dimension(string $field): ?Dimension
    {
        [$role, $rest] = explode('.', $field, 2) + ['', ''];

        return str_starts_with($rest, Patterns::FACT) ? self::OF[$role] ?? null : null;
    }

    /** A question with conditions on elements in place of those on parts of their names. */
    public function resolved(Client $client, Question $question): Question
    {
        return $question->where(
            array_map(
                fn (array $w): array => $w['by']->isPart
                    ? [
                        'by' => By::of($w['by']->dimension),
                        'is' => $this->having($client, $w['by']->asked, $w['is']),
                        'not' => $w['not'],
                    ]
                    : $w,
                $question->where,
            ),
        );
    }

    /**
     * @param list<string|int> $ids of elements
     * @return array<int|string, string> those whose names have the part, with what it says
     */
    public function of(Client $client, string $field, array $ids): array
    {
        $parts = $readers = [];
        foreach (array_chunk($ids, self::AT_ONCE) as $some) {
            $of = Node::withTrashed()->whereIntegerInRaw('id', $some)->toBase()->get()->groupBy('account_id');
            foreach ($client->accounts()->with('client')->findMany($of->keys()) as $account) {
                $readers[$account->id] ??= $this->reader($account, $field);
                foreach ($of[$account->id] ?? [] as $row) {
                    $parts[$row->id] = $readers[$account->id]($row);
                }
            }
        }

        return array_filter($parts, strlen(...));
    }

    /**
     * @param list<string|int> $values '': also those without the part
     * @return list<string>
     */
    private function having(Client $client, string $field, array $values): array
    {
        $role = explode('.', $field, 2)[0];
        $isNothing = in_array('', $values, true);
        $ids = $isNothing ? [''] : [];
        foreach ($client->accounts()->with('client')->get() as $account) {
            $depths = array_keys(
                array_filter(
                    Trees::dialect($account)->levels,
                    static fn (Level $l): bool => $l->role->value === $role,
                ),
            );
            $read = $this->reader($account, $field);
            Node::withTrashed()
                ->where('account_id', $account->id)
                ->whereIn('depth', $depths)
                ->toBase()
                ->chunkById(self::AT_ONCE, static function (Collection $rows) use ($read, $values, &$ids): void {
                    foreach ($rows as $row) {
                        if (in_array($read($row), $values, true)) {
                            $ids[] = (string) $row->id;
                        }
                    }
                });
        }

        return $ids === [] ? ['-'] : $ids;
    }

    /** @return \Closure(object): string what the part says of a row of the nodes table; '': it has none */
    private function reader(Account $account, string $field): \Closure
    {
        $part = substr($field, (int) strpos($field, Patterns::FACT) + strlen(Patterns::FACT));
        $patterns = $this->agreements->names($account->client_id);
        $dialect = Trees::dialect($account);
        $nodes = new NamedNodes($account, $dialect, $patterns);

        return static function (object $row) use ($part, $patterns, $dialect, $nodes): string {
            $pattern = $patterns->for($dialect, $row->level, $nodes->type($row));

            return $pattern?->parts($row->name)[$part] ?? '';
        };
    }
}
