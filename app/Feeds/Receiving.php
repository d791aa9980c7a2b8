<?php

namespace App\Feeds;

use App\Models\Feed;
use Illuminate\Support\Facades\File;

/** Takes a list's file in, part by part. */
final readonly class Receiving
{
    /** What is not whole after so long was given up. */
    private const SECONDS = 86_400;

    /** @param string $name what the sender calls the file */
    public function __construct(private Feed $feed, private string $name) {}

    /**
     * @param int $bytes of the whole file
     * @return int the bytes that are there now: the next part begins there
     */
    public function part(int $from, string $part, int $bytes): int
    {
        File::ensureDirectoryExists($this->feed->folder());
        if ($from === 0) {
            $this->forget();
        }
        $file = fopen($this->path(), 'cb') ?: throw new \RuntimeException('a list’s file can’t be written');
        try {
            flock($file, LOCK_EX); // two requests with the same part take turns
            $there = fstat($file)['size'] ?? 0;
            if ($from !== $there || $from + strlen($part) > $bytes) {
                return $there;
            }
            fseek($file, $from);
            if (fwrite($file, $part) !== strlen($part)) {
                ftruncate($file, $from);
                throw new \RuntimeException('a part of a list could not be written: is the disk full?');
            }

            return $from + strlen($part);
        } finally {
            fclose($file);
        }
    }

    /** @return string|null where it is, once all has come; null: somebody else has taken it */
    public function whole(): ?string
    {
        $path = "{$this->feed->folder()}/whole".bin2hex(random_bytes(4));

        return @rename($this->path(), $path) ? $path : null;
    }

    private function path(): string
    {
        return "{$this->feed->folder()}/put-{$this->name}";
    }

    private function forget(): void
    {
        foreach (File::glob("{$this->feed->folder()}/put-*") as $path) {
            if (time() - File::lastModified($path) > self::SECONDS) {
                File::delete($path);
            }
        }
    }
}
