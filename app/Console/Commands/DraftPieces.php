<?php

namespace App\Console\Commands;

use App\Changes\Brief;
use App\Changes\PieceDrafts;
use App\Models\Change;
use App\Support\Beside;
use App\Support\Overtaken;
use Illuminate\Console\Command;

/** One of the processes that share the pieces of a change. What it writes is for the process that began it. */
final class DraftPieces extends Command
{
    protected $signature = 'draft:pieces {change}';

    protected $description = 'Works out pieces of a change, for the process that has begun that';

    protected $hidden = true;

    public function handle(): int
    {
        gc_disable(); // the core makes no circles: looking for some among many ads would find none
        [$turn, $decided, $pieces] = unserialize((string) stream_get_contents(STDIN));
        $change = Change::query()->with('account.link')->findOrFail((int) $this->argument('change'));
        try {
            $told = (new PieceDrafts(Brief::of($change), $turn))->share($pieces, $decided);
        } catch (Overtaken) {
            return Overtaken::EXIT;
        }
        $this->output->write(Beside::written($told));

        return self::SUCCESS;
    }
}
