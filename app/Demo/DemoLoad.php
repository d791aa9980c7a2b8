<?php

namespace App\Demo;

use App\Models\User;
use Database\Seeders\DemoSeeder;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

final class DemoLoad extends Command
{
    protected $signature = 'demo:load';

    protected $description = 'Loads the demo once: an agency, its people and clients';

    /**
     * Once in the life of an installation: what people have changed or taken away since is theirs, known passwords
     * above all.
     */
    public function handle(): void
    {
        DB::transaction(function (): void {
            $isFirst = DB::table('marks')->insertOrIgnore(['name' => 'demo', 'at' => now()]) === 1;
            if ($isFirst && User::query()->doesntExist()) {
                $this->laravel->make(DemoSeeder::class)->run();
            }
        });
    }
}
