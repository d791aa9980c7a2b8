<?php

declare(strict_types=1);

namespace Standins\Ads;

use Standins\Store;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * The advertisers' desk of a portal without a way in for programs: a person hands in a CSV sheet and gets it back with
 * the outcome of each row.
 */
final readonly class Desk
{
    public function __construct(private Platform $platform, private Store $store) {}

    public function handle(Request $request): Response
    {
        $sheet =
            $request->getMethod() === 'POST'
                ? (string) ($request->files->get('sheet')?->getContent() ?? $request->getContent())
                : '';
        if ($sheet === '') {
            return new Response(
                "<!doctype html><html lang=\"en\"><meta charset=\"utf-8\"><title>{$this->platform->title}: "
                    .'advertisers’ desk</title><h1>Advertisers’ desk</h1><p>Hand in a sheet (CSV) with the columns '
                    .'Advert no. and Link.</p><form method="post" enctype="multipart/form-data"><input '
                    .'type="file" name="sheet"><button>Hand in</button></form></html>',
            );
        }
        $rows = array_map(
            static fn (string $l): array => str_getcsv($l, ',', '"', ''),
            array_filter(preg_split('/\r?\n/', $sheet) ?: [], strlen(...)),
        );
        $heads = array_shift($rows) ?? [];
        $out = fopen('php://memory', 'w+b') ?: throw new \RuntimeException('no memory');
        fputcsv($out, [...$heads, 'Outcome', 'Remark'], ',', '"', '');
        foreach ($rows as $row) {
            $cells = array_combine($heads, array_pad($row, count($heads), ''));
            fputcsv(
                $out,
                [
                    ...$row,
                    ...$this->change((string) ($cells['Advert no.'] ?? ''), (string) ($cells['Link'] ?? '')),
                ],
                ',',
                '"',
                '',
            );
        }
        rewind($out);

        return new Response((string) stream_get_contents($out), 200, [
            'Content-Type' => 'text/csv',
            'Content-Disposition' => 'attachment; filename=outcome.csv',
        ]);
    }

    /** @return array{string, string} outcome and remark */
    private function change(string $number, string $link): array
    {
        $row =
            $this->store->rows('select * from nodes where platform = ? and id = ?', [
                $this->platform->host,
                $number,
            ])[0] ?? null;
        if ($row === null) {
            return ['Refused', 'no such advert'];
        }
        $slots = json_decode((string) $row['slots'], true);
        $slots['landing'] = $link;
        $problem = $this->platform->problem((string) $row['level'], 'slots', 'landing', $link, $slots);
        if ($problem !== null) {
            return ['Refused', $problem];
        }
        $this->store->run('update nodes set slots = ?, version = version + 1 where platform = ? and id = ?', [
            json_encode($slots, JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE),
            $this->platform->host,
            $number,
        ]);

        return ['Done', ''];
    }
}
