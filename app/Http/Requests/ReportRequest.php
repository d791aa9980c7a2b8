<?php

namespace App\Http\Requests;

use Illuminate\Validation\Rule;
use Vestigon\Core\Numbers\By;

/** A sheet out of a report, and what a person has said of its columns. */
final class ReportRequest extends ApiRequest
{
    private const MOST = 500;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => 'required|string|max:200',
            'content' => 'required|string',
            'table' => 'integer|min:0|max:1000',
            'columns' => 'array|list|max:'.self::MOST,
            'columns.*.at' => 'required|integer|min:0|max:100000',
            'columns.*.by' => ['present', 'nullable', Rule::enum(By::class)],
            'summed' => 'nullable|array|list|max:'.self::MOST,
            'summed.*' => 'integer|min:0|max:100000',
        ];
    }

    /**
     * @return array{string, int, array<int, By|null>, list<int>|null} the file's name, the table's place in it, what is
     *     told of columns by their place, places of columns that are added up; null: every row is a line
     */
    public function asked(): array
    {
        $told = [];
        foreach ($this->validated('columns') ?? [] as ['at' => $at, 'by' => $by]) {
            $told[(int) $at] = $by === null ? null : By::from($by);
        }
        $summed = $this->validated('summed');

        return [
            basename($this->validated('name')),
            (int) ($this->validated('table') ?? 0),
            $told,
            $summed === null ? null : array_map(intval(...), $summed),
        ];
    }
}
