<?php

namespace App\Http\Requests;

use App\Models\Tracker;
use Illuminate\Validation\Rule;

/** What a click tracker does with a click. */
final class TrackerRequest extends ApiRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        $tracker = $this->route('tracker');

        return [
            'host' => [
                'required',
                'string',
                'max:253',
                'regex:'.HostName::PATTERN,
                Rule::unique('trackers', 'host')
                    ->where('client_id', $this->client()->id)
                    ->ignore($tracker instanceof Tracker ? $tracker->id : null),
            ],
            'parameter' => 'required|string|max:191',
            'forwards' => 'required|boolean',
            'adds' => 'present|array|max:20',
            'adds.*.key' => 'required|string|max:191',
            'adds.*.text' => 'present|nullable|string|max:2000',
            'revision' => 'required|integer|min:0',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'host.regex' => HostName::WRONG,
            'host.unique' => '“:input” is a tracker of yours already.',
            'parameter.required' => 'Say in which of its parameters the destination stands, such as “to” or “url”.',
        ];
    }

    /** @return array<string, mixed> columns */
    public function columns(): array
    {
        return [
            'host' => $this->validated('host'),
            'parameter' => $this->validated('parameter'),
            'forwards' => $this->validated('forwards'),
            'adds' => array_map(
                static fn (array $a): array => ['key' => $a['key'], 'text' => (string) ($a['text'] ?? '')],
                array_values($this->validated('adds')),
            ),
            'user_id' => $this->user()?->id,
        ];
    }
}
