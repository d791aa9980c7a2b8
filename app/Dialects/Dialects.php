<?php

namespace App\Dialects;

use App\Models\Client;
use App\Models\Node;
use App\Models\OwnDialect;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Dialect\Level;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Naming\Patterns;

/** The platforms that a client knows: the shipped ones and its own. */
final class Dialects
{
    /** @var array<string, Dialect|null> null: there is none of this id */
    private array $shipped = [];

    /** @var array<string, Dialect|null> by client and id */
    private array $own = [];

    private ?RuleBook $rules = null;

    private function shipped(string $id): ?Dialect
    {
        return array_key_exists($id, $this->shipped)
            ? $this->shipped[$id]
            : ($this->shipped[$id] = Shipped::dialect($id));
    }

    /** One of the client's own, or a shipped one; null: there is none of this id. */
    public function find(int $client, string $id): ?Dialect
    {
        $shipped = $this->shipped($id);
        if ($shipped !== null || array_key_exists("{$client} {$id}", $this->own)) {
            return $shipped ?? $this->own["{$client} {$id}"];
        }
        $own = OwnDialect::query()->where(['client_id' => $client, 'name' => $id])->first();

        return $this->own["{$client} {$id}"] =
            $own === null ? null : DialectReader::read(new Cursor($own->document));
    }

    /** One that an account or a connection of the client has: it is there. */
    public function of(int $client, string $id): Dialect
    {
        return $this->find($client, $id) ?? throw new \RuntimeException("there is no dialect {$id}");
    }

    /** @return list<Dialect> of all platforms that the client has accounts on */
    public function usedBy(Client $client): array
    {
        $ids = $client->accounts()->distinct()->orderBy('dialect')->pluck('dialect')->all();

        return array_map(fn (string $id): Dialect => $this->of($client->id, $id), $ids);
    }

    /**
     * The rules that findings are made by; they know the shipped platforms' tokens.
     *
     * @param Patterns $names that names follow
     */
    public function rules(Patterns $names = new Patterns()): RuleBook
    {
        return $names->all === []
            ? ($this->rules ??= RuleBook::all(array_values(Shipped::all()), ChannelsReader::shipped()))
            : RuleBook::all(array_values(Shipped::all()), ChannelsReader::shipped(), $names);
    }

    /** @return array<string, mixed>|null the document of a shipped platform */
    public static function shippedDocument(string $id): ?array
    {
        return in_array($id, Shipped::ids(), true)
            ? json_decode((string) file_get_contents(Shipped::file($id)), true)
            : null;
    }

    /**
     * Keeps a client's own platform.
     *
     * @param array<string, mixed> $document
     * @param int $known the revision that the change was made to; 0: it is new
     * @return OwnDialect|null null if somebody else has saved it meanwhile
     *
     * @throws UnusableInput
     */
    public function save(Client $client, array $document, int $known, int $user): ?OwnDialect
    {
        $dialect = DialectReader::read(new Cursor($document));
        $id = $dialect->id;
        if (in_array($id, Shipped::ids(), true)) {
            throw UnusableInput::at(
                'id',
                "\"{$id}\" is a shipped platform. Give yours another id; a copy can say all the rest.",
            );
        }

        $this->keepsLevels($client, $dialect);
        unset($this->own["{$client->id} {$id}"]);

        return DB::transaction(static function () use ($client, $id, $document, $known, $user): ?OwnDialect {
            // of two who save at once, the second sees the first
            Client::query()->whereKey($client->id)->lockForUpdate()->first();
            $own = $client->ownDialects()->where('name', $id)->first();

            return ($own->revision ?? 0) !== $known
                ? null
                : $client
                    ->ownDialects()
                    ->updateOrCreate(
                        ['name' => $id],
                        ['revision' => $known + 1, 'document' => $document, 'user_id' => $user],
                    );
        }, 5);
    }

    /** @throws UnusableInput elements that are there would be of no level */
    private function keepsLevels(Client $client, Dialect $dialect): void
    {
        $lost = Node::withTrashed()
            ->whereIn('account_id', $client->accounts()->where('dialect', $dialect->id)->select('accounts.id'))
            ->whereNotIn('level', array_map(static fn (Level $l): string => $l->id, $dialect->levels))
            ->value('level');
        if ($lost !== null) {
            throw UnusableInput::at('levels', "\"{$lost}\" is missing, and accounts have elements of it");
        }
    }
}
