<?php

namespace App\Http\Requests;

use App\Http\Rules\OfClient;
use App\Results\Askable;
use App\Results\By;
use App\Results\Question;
use Illuminate\Support\Carbon;
use Illuminate\Validation\Rule;

/** What is asked of results: by what, of which days, beside which others, only where. */
final class ResultsRequest extends ApiRequest
{
    /** So many days at the most. */
    private const DAYS = 800;

    /** @var array<string, By|null> as they are asked for */
    private array $found = [];

    private const ORDERS = [
        'name',
        'impressions',
        'clicks',
        'views',
        'sessions',
        'newVisitors',
        'onePage',
        'conversions',
        'revenue',
        'net',
        'cost',
        'conversion',
        'viewsEach',
        'costPerClick',
        'costPerSession',
        'costPerConversion',
        'revenueByCost',
    ];

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'by' => 'present|array|list|max:3',
            'by.*' => ['string', 'distinct', $this->isTold(...)],
            'from' => 'required|date_format:Y-m-d',
            'to' => [
                'required',
                'date_format:Y-m-d',
                'after_or_equal:from',
                function (string $field, mixed $to, \Closure $fail): void {
                    $from = $this->input('from');
                    if (
                        is_string($from)
                        && is_string($to)
                        && strtotime($to) - (int) strtotime($from) > self::DAYS * 86_400
                    ) {
                        $fail('At most '.self::DAYS.' days can be looked at together.');
                    }
                },
            ],
            'beside' => 'nullable|in:before,year',
            'where' => 'array|list|max:20',
            'where.*' => 'array:by,is,not',
            'where.*.by' => ['required', 'string', $this->isTold(...)],
            'where.*.is' => 'required|array|list|min:1|max:200',
            'where.*.is.*' => 'present|nullable|string|max:500',
            'where.*.not' => 'boolean',
            'order' => ['string', Rule::in(self::ORDERS)],
            'up' => 'boolean',
            'limit' => 'integer|min:1|max:1000',
            'kind' => 'in:csv,xlsx',
            'reading' => ['nullable', 'integer', new OfClient($this->client(), 'readings')],
        ];
    }

    public function question(): Question
    {
        return new Question(
            array_map($this->by(...), $this->validated('by')),
            $this->validated('from'),
            $this->validated('to'),
            array_map(
                fn (array $w): array => [
                    'by' => $this->by($w['by']),
                    'is' => array_map(strval(...), $w['is']),
                    'not' => (bool) ($w['not'] ?? false),
                ],
                $this->validated('where') ?? [],
            ),
            $this->validated('reading') === null ? null : (int) $this->validated('reading'),
        );
    }

    private function by(string $asked): By
    {
        return $this->found($asked) ?? throw new \LogicException("results are not told by {$asked}");
    }

    private function found(string $asked): ?By
    {
        return $this->found[$asked] ??= $this->container->make(Askable::class)->find($this->client(), $asked);
    }

    private function isTold(string $field, mixed $by, \Closure $fail): void
    {
        if (! is_string($by) || $this->found($by) === null) {
            $fail('Results are not told by that.');
        }
    }

    /** The same of the days before, or of a year ago: as many, and the same days of the week. */
    public function beside(): ?Question
    {
        $question = $this->question();
        $from = Carbon::parse($question->from);
        $to = Carbon::parse($question->to);
        $back = match ($this->validated('beside')) {
            'before' => (int) $from->diffInDays($to) + 1,
            'year' => 364,
            default => null,
        };

        return $back === null
            ? null
            : $question->during($from->subDays($back)->toDateString(), $to->subDays($back)->toDateString());
    }
}
