<?php

namespace App\Dialects;

use App\Models\Client;
use App\Models\OwnDialect;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Findings\RuleBook;

/** The platforms that a client knows: the shipped ones and its own. */
final class Dialects
{
    /** @var array<string, Dialect> */
    private array $shipped = [];

    private ?RuleBook $rules = null;

    public function shipped(string $id): ?Dialect
    {
        return $this->shipped[$id] ??= Shipped::dialect($id);
    }

    public function of(Client $client, string $id): ?Dialect
    {
        $own = $client->ownDialects()->where('name', $id)->first();

        return $own === null ? $this->shipped($id) : DialectReader::read(new Cursor($own->document));
    }

    /** The rules that findings are made by; they know the shipped platforms' tokens. */
    public function rules(): RuleBook
    {
        foreach (Shipped::ids() as $id) {
            $this->shipped($id);
        }

        return $this->rules ??= RuleBook::all(array_values($this->shipped), ChannelsReader::shipped());
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
        $id = DialectReader::read(new Cursor($document))->id;
        if (in_array($id, Shipped::ids(), true)) {
            throw UnusableInput::at(
                'id',
                "\"{$id}\" is a shipped platform. Give yours another id; a copy can say all the rest.",
            );
        }

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
}
