<?php

namespace App\Http\Requests;

/** A real click's URL, the texts that made it, and the platform as it is being written. */
final class ExplainClickRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'text' => 'required|string|max:500000',
            'nodes' => 'required|array|min:1|max:10',
            'nodes.*' => 'array:level,type,slots,custom',
            'nodes.*.level' => 'required|string|max:60',
            'nodes.*.type' => 'nullable|string|max:60',
            'nodes.*.slots' => 'array|max:10',
            'nodes.*.slots.*' => 'nullable|string|max:10000',
            'nodes.*.custom' => 'array|max:30',
            'nodes.*.custom.*' => 'nullable|string|max:2000',
            'url' => 'required|string|max:16000',
        ];
    }

    /** @return list<array<string, mixed>> level, type, slots and custom parameters of each that is said */
    public function nodes(): array
    {
        $filled = static fn (array $map): array => array_filter($map, static fn (?string $v): bool => $v !== null);

        return array_map(
            static fn (array $n): array => array_filter([
                'level' => $n['level'],
                'type' => $n['type'] ?? null,
                'slots' => $filled($n['slots'] ?? []),
                'custom' => $filled($n['custom'] ?? []),
            ]),
            array_values($this->validated('nodes')),
        );
    }
}
