<?php

namespace Database\Factories;

use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use Illuminate\Database\Eloquent\Factories\Factory;

/** @extends Factory<Change> */
final class ChangeFactory extends Factory
{
    protected $model = Change::class;

    /** @return array<string, mixed> worked out, with nothing to write */
    public function definition(): array
    {
        return [
            'title' => 'In line',
            'reason' => '',
            'status' => ChangeStatus::Ready,
            'plan_revision' => 1,
            'policy' => [],
        ];
    }

    public function of(Account $account): self
    {
        return $this->state(['account_id' => $account->id, 'client_id' => $account->client_id]);
    }
}
