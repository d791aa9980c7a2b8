<?php

namespace App\Sheets\Files;

use Illuminate\Support\Str;
use Vestigon\Core\Document\UnusableInput;

/** A file that came in a request, in base64: put down for as long as it is looked at. */
final class Brought
{
    /** @throws UnusableInput it did not come whole */
    public static function bytes(string $content): string
    {
        $bytes = base64_decode($content, true);

        return $bytes === false ? throw new UnusableInput('The file did not come whole. Choose it again.') : $bytes;
    }

    /**
     * @template T
     *
     * @param \Closure(string): T $looked of its path
     * @return T
     *
     * @throws UnusableInput it did not come whole
     */
    public static function file(string $content, \Closure $looked): mixed
    {
        $path = sys_get_temp_dir().'/brought-'.Str::random(24); // what is unpacked is put beside it
        file_put_contents($path, self::bytes($content));
        try {
            return $looked($path);
        } finally {
            array_map(unlink(...), glob("{$path}*") ?: []);
        }
    }
}
