<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** Writes what comes of events as one JSON document, as it comes: sessions at once, the rest behind them. */
final class Written implements Told
{
    private const FLAGS =
        JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE;

    private const IN_MEMORY = 1 << 22; // the rest waits on the disk

    /** @var resource */
    private $conversions;

    /** @var resource */
    private $repeated;

    private bool $any = false;

    /** @param resource $out */
    public function __construct(private $out)
    {
        $this->conversions = self::waiting();
        $this->repeated = self::waiting();
        fwrite($this->out, '{"sessions":[');
    }

    public function session(Session $session): void
    {
        fwrite($this->out, ($this->any ? ",\n" : '').json_encode($session->toArray(), self::FLAGS));
        $this->any = true;
    }

    public function conversion(Conversion $conversion): void
    {
        self::add($this->conversions, $conversion->toArray());
    }

    public function repeated(Event $event): void
    {
        self::add($this->repeated, $event->id);
    }

    /** @param array<string, mixed> $more what stands behind it in the document */
    public function end(array $more): void
    {
        fwrite($this->out, "],\n\"conversions\":[");
        $this->copy($this->conversions);
        fwrite($this->out, "],\n\"repeated\":[");
        $this->copy($this->repeated);
        fwrite($this->out, ']');
        foreach ($more as $key => $value) {
            fwrite($this->out, ",\n\"{$key}\":".json_encode($value, self::FLAGS | JSON_PRESERVE_ZERO_FRACTION));
        }
        fwrite($this->out, "}\n");
    }

    /** @return resource */
    private static function waiting()
    {
        return fopen('php://temp/maxmemory:'.self::IN_MEMORY, 'w+') ?: throw new \RuntimeException('no room to write');
    }

    /** @param resource $list */
    private static function add($list, mixed $item): void
    {
        fwrite($list, (ftell($list) > 0 ? ",\n" : '').json_encode($item, self::FLAGS));
    }

    /** @param resource $list */
    private function copy($list): void
    {
        rewind($list);
        stream_copy_to_stream($list, $this->out);
    }
}
