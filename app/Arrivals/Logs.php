<?php

namespace App\Arrivals;

use App\Collecting\Incoming;
use App\Collecting\Row;
use App\Collecting\Site;
use App\Models\SiteFile;
use App\Models\SiteFileState;
use App\Watching\Settings;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Watch\Event;
use Vestigon\Core\Watch\EventKind;
use Vestigon\Core\Watch\Hosts;
use Vestigon\Core\Watch\Log\CombinedLog;
use Vestigon\Core\Watch\Log\ExtendedLog;
use Vestigon\Core\Watch\Log\LogForm;
use Vestigon\Core\Watch\Log\Served;

/**
 * Reads a web server's log: its pages that people have seen, as views. Of who they were a hash is kept that is another
 * each day, by a salt that is thrown away; programs that say what they are are left out, and counted.
 */
final class Logs
{
    private const AT_ONCE = 1000;

    private const DAY = 86_400_000;

    private const LONGEST = 1 << 17;

    /** @var array<string, string> day → salt */
    private array $salts = [];

    private readonly SameAgain $same;

    /** @var array<string, int> */
    private array $leftOut = [];

    private readonly Site $site;

    private int $lines = 0;

    private int $taken = 0;

    public function __construct(
        private readonly Keeping $keeping,
        Sites $sites,
        private readonly KnownPrograms $programs,
        private readonly SiteFile $file,
    ) {
        $this->site = $sites->of($file->collector);
        $this->same = new SameAgain();
    }

    public static function of(SiteFile $file): self
    {
        return app()->make(self::class, ['file' => $file]);
    }

    public function read(): void
    {
        $packed = str_starts_with((string) file_get_contents($this->file->path(), length: 2), "\x1F\x8B");
        $in = fopen(($packed ? 'compress.zlib://' : '').$this->file->path(), 'rb')
            ?: throw new \RuntimeException('a log that was put in can’t be read');
        $form = null;
        $some = [];
        while (($line = fgets($in, self::LONGEST)) !== false) {
            $line = rtrim($line, "\r\n");
            $form ??= str_starts_with($line, '#') ? new ExtendedLog() : new CombinedLog();
            $view = $this->view($form, $line);
            if ($view !== null) {
                $some[] = $view;
            }
            if (count($some) === self::AT_ONCE) {
                $this->keep($some);
                $some = [];
            }
        }
        fclose($in);
        $this->keep($some);
        $this->file->update([
            'state' => SiteFileState::Read,
            'lines' => $this->lines,
            'taken' => $this->taken,
            'left_out' => $this->leftOut,
        ]);
    }

    private function view(LogForm $form, string $line): ?Incoming
    {
        $served = $form->read($line);
        if ($served === null && $form->isDirective($line)) {
            return null;
        }
        $this->lines++;
        $now = (int) now()->getPreciseTimestamp(3);
        $keeps = Settings::of($this->file->collector->client)->retention;
        $why = match (true) {
            $served === null => 'unreadable',
            ! $served->isPage() => 'no-page',
            $this->programs->isOne($served->agent) => 'program',
            $served->at > $now + self::DAY => 'ahead',
            $served->at < $now - $keeps * self::DAY => 'too-old',
            default => null,
        };
        $url = $served === null ? null : $this->url($served);
        $why ??= $url === null ? 'foreign-address' : null;
        if ($why !== null || $served === null || $url === null) {
            $this->leftOut[(string) $why] = ($this->leftOut[(string) $why] ?? 0) + 1;

            return null;
        }

        return new Incoming(
            Incoming::numberOf($this->identity($line)),
            new Event(
                '',
                (string) $this->file->collector_id,
                $served->at,
                EventKind::View,
                mb_scrub($url),
                mb_scrub($served->referrer),
                $this->visitor($served),
            ),
            self::device($served->agent),
        );
    }

    /** The same line is the same view, whenever it comes again; two in one log that read alike are two. */
    private function identity(string $line): string
    {
        return "log {$this->same->number($line)} {$line}";
    }

    /** @return string|null null: it is no page of this site */
    private function url(Served $served): ?string
    {
        $collector = $this->file->collector;
        $url = $served->url(ltrim((string) ($collector->hosts[0] ?? ''), '*.'));

        return $url !== null && Hosts::isOneOf($collector->hosts ?? [], Hosts::of($url)) ? $url : null;
    }

    private function visitor(Served $served): ?string
    {
        if ($served->who === '') {
            return null;
        }
        $day = gmdate('Y-m-d', intdiv($served->at, 1000));

        return 'l'.substr(hash('sha256', "{$this->salt($day)} {$served->who} {$served->agent}"), 0, 31);
    }

    private function salt(string $day): string
    {
        if (! isset($this->salts[$day])) {
            $is = ['collector_id' => $this->file->collector_id, 'day' => $day];
            DB::table('log_salts')->insertOrIgnore($is + ['salt' => bin2hex(random_bytes(16)), 'drawn_at' => now()]);
            $this->salts[$day] = (string) DB::table('log_salts')->where($is)->value('salt');
        }

        return $this->salts[$day];
    }

    /** As browsers say it of themselves (common practice, no source). */
    private static function device(string $agent): string
    {
        return match (true) {
            $agent === '' => '',
            preg_match('~iPad|Tablet|Android(?!.*Mobile)~i', $agent) === 1 => 'tablet',
            preg_match('~Mobi~i', $agent) === 1 => 'mobile',
            default => 'desktop',
        };
    }

    /** @param list<Incoming> $some */
    private function keep(array $some): void
    {
        if ($some !== []) {
            $collector = $this->file->collector;
            $this->taken += $this->keeping->keep($collector, $some, Row::all($this->site, $some));
        }
    }
}
