<?php

namespace Tests;

use App\Models\Account;
use App\Models\Import;
use App\Models\ImportStatus;
use App\Models\Node;
use App\Models\Text;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;

/** Brings sheets in, as a person does. */
trait SheetsIn
{
    /**
     * @param array<string, string> $files content by name
     * @param array<string, mixed> $of of which account; a new one of Northquay Search
     * @return array<string, mixed> the intake, with its files there
     */
    private function dropped(array $files, array $of = []): array
    {
        $id = $this->api('POST', '/intakes', $of + [
            'dialect' => 'northquay-search',
            'number' => 'NQ-900',
            'name' => 'Harbour',
        ])
            ->assertStatus(201)
            ->json('id');
        foreach ($files as $name => $content) {
            $this->sent($id, (string) $name, $content);
        }

        return $this->api('GET', "/intakes/{$id}")->assertOk()->json();
    }

    private function sent(int $intake, string $name, string $content, int $part = 60_000): void
    {
        $file = $this->api('POST', "/intakes/{$intake}/files", ['name' => $name, 'bytes' => strlen($content)])
            ->assertStatus(201)
            ->json('id');
        foreach (str_split($content, $part) as $i => $some) {
            $this->api('PUT', "/intakes/{$intake}/files/{$file}", [
                'from' => $i * $part,
                'content' => base64_encode($some),
            ])->assertOk();
        }
    }

    /**
     * @param array<string, mixed> $intake
     * @param array<string, mixed> $with
     * @return array<string, mixed> the intake, read by the map that was suggested
     */
    private function read(array $intake, array $with = []): array
    {
        $tables = array_map(
            static fn (array $t): array => [
                'title' => $t['title'],
                'use' => $t['use'],
                'level' => $t['level'],
                'rowKind' => $t['rowKind'],
                'columns' => array_map(
                    static fn (array $c): array => array_intersect_key(
                        $c,
                        array_flip(['heading', 'means', 'values', 'form']),
                    ),
                    $t['columns'],
                ),
            ],
            $intake['tables'],
        );
        $this->api('PUT', "/intakes/{$intake['id']}/reading", $with + [
            'revision' => $intake['revision'],
            'title' => 'Our export',
            'tables' => $tables,
        ])->assertStatus(202);

        return $this->api('GET', "/intakes/{$intake['id']}")->json();
    }

    /**
     * @param array<string, mixed> $intake
     * @param array<string, bool> $whole
     */
    private function begun(array $intake, array $whole = []): Account
    {
        $this->api('POST', "/intakes/{$intake['id']}/import", [
            'revision' => $intake['revision'],
            'whole' => $whole,
        ])->assertStatus(202);
        $import = Import::query()->latest('id')->firstOrFail();
        self::assertSame(ImportStatus::Done, $import->status, (string) $import->problem);

        return Account::query()->where('external_id', $intake['number'])->firstOrFail();
    }

    /** @return array<string, string> live texts of an element, by kind */
    private static function texts(string $number): array
    {
        return Text::query()
            ->whereNull('until')
            ->whereIn('node_id', Node::query()->where('external_id', $number)->select('id'))
            ->pluck('text', 'kind')
            ->all();
    }

    /**
     * @param list<list<string>> $rows
     * @return string the bytes of a workbook that holds them
     */
    private function workbook(string $kind, array $rows): string
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'book');
        $writer = $kind === 'ods' ? WriterEntityFactory::createODSWriter() : WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($path);
        foreach ($rows as $row) {
            $writer->addRow(WriterEntityFactory::createRow(array_map(static function (string $text) {
                $cell = WriterEntityFactory::createCell($text);
                $cell->setType(\OpenSpout\Common\Entity\Cell::TYPE_STRING);

                return $cell;
            }, $row === [] ? [''] : $row)));
        }
        $writer->close();
        $content = (string) file_get_contents($path);
        unlink($path);

        return $content;
    }
}
