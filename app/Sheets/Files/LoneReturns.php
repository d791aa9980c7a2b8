<?php

namespace App\Sheets\Files;

/** Ends of lines that are a return alone, as very old programs write them, become line feeds while a file is read. */
final class LoneReturns extends \php_user_filter
{
    private const NAME = 'vestigon.lone-returns';

    /** @param resource $stream */
    public static function on($stream): void
    {
        if (! in_array(self::NAME, stream_get_filters(), true)) {
            stream_filter_register(self::NAME, self::class);
        }
        stream_filter_append($stream, self::NAME, STREAM_FILTER_READ);
    }

    /**
     * @param resource $in
     * @param resource $out
     * @param int $consumed
     */
    public function filter($in, $out, &$consumed, bool $closing): int
    {
        while ($bucket = stream_bucket_make_writeable($in)) {
            $consumed += $bucket->datalen;
            $bucket->data = strtr($bucket->data, "\r", "\n");
            stream_bucket_append($out, $bucket);
        }

        return PSFS_PASS_ON;
    }
}
