<?php

namespace App\Clicks;

/** One request of a followed click, and what came back. */
final readonly class Step
{
    /**
     * @param int|null $status HTTP status; null: no answer
     * @param string|null $problem why it ends here, in words; null: it answered as it should
     */
    public function __construct(
        public string $url,
        public ?int $status,
        public int $ms,
        public ?string $problem,
    ) {}

    /** @return array{url: string, status: int|null, ms: int, problem: string|null} */
    public function toArray(): array
    {
        return ['url' => $this->url, 'status' => $this->status, 'ms' => $this->ms, 'problem' => $this->problem];
    }
}
