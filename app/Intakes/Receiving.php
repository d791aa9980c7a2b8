<?php

namespace App\Intakes;

use App\Models\Intake;
use App\Models\IntakeFile;
use App\Models\IntakeStatus;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;

/** Takes a file in, part by part; when all files are there, looks at what they hold. */
final readonly class Receiving
{
    public function __construct(private Intake $intake, private IntakeFile $file) {}

    /** @return int the bytes that are there now: the next part begins there */
    public function part(int $from, string $bytes): int
    {
        return DB::transaction(function () use ($from, $bytes): int {
            $intake = Intake::query()->lockForUpdate()->findOrFail($this->intake->id);
            $file = IntakeFile::query()->findOrFail($this->file->id)->setRelation('intake', $intake);
            if ($from !== $file->received || $from + strlen($bytes) > $file->bytes) {
                return $file->received;
            }
            File::ensureDirectoryExists($intake->folder());
            $out = fopen($file->path(), 'cb') ?: throw new \RuntimeException('an intake’s file can’t be written');
            ftruncate($out, $from);
            fseek($out, $from);
            fwrite($out, $bytes);
            fclose($out);
            $file->update(['received' => $from + strlen($bytes)]);
            if ($file->isWhole()) {
                $this->look($intake);
            }

            return $file->received;
        }, 5);
    }

    public function remove(): void
    {
        DB::transaction(function (): void {
            $intake = Intake::query()->lockForUpdate()->findOrFail($this->intake->id);
            $this->file->setRelation('intake', $intake);
            File::delete(File::glob($this->file->path().'*'));
            $this->file->delete();
            $this->look($intake);
        }, 5);
    }

    private function look(Intake $intake): void
    {
        $isWhole = $intake->files()->whereColumn('received', '<', 'bytes')->doesntExist();
        if ($isWhole) {
            $intake->update([
                'tables' => Looks::of($intake),
                'status' => IntakeStatus::Open,
                'counts' => null,
                'problem' => null,
                'revision' => $intake->revision + 1,
            ]);
        }
    }
}
