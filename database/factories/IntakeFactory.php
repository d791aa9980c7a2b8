<?php

namespace Database\Factories;

use App\Models\Intake;
use App\Models\IntakeStatus;
use Illuminate\Database\Eloquent\Factories\Factory;

/** @extends Factory<Intake> */
final class IntakeFactory extends Factory
{
    protected $model = Intake::class;

    /** @return array<string, mixed> */
    public function definition(): array
    {
        return [
            'dialect' => 'mossfeed',
            'number' => 'M-1',
            'name' => 'Moss',
            'status' => IntakeStatus::Open,
        ];
    }
}
