<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Account\Path;
use Vestigon\Core\Template\TemplateReader;

/** Traces many ads of an account: ads of one group with the same texts of their own share a route. */
final class Routes
{
    /**
     * @var array<string, array{Path, Route}> the first ad of each kind, which is also kept so that its key stays its
     *     own
     */
    private array $byTexts = [];

    /** @param list<Hop> $hops */
    public function __construct(
        private readonly Settings $settings,
        private readonly array $hops,
        private readonly TemplateReader $reader,
    ) {}

    /** @param array<string, string> $context */
    public function trace(Path $path, array $context): Trace
    {
        $ad = $path->last();
        $group = $path->nodes[count($path->nodes) - 2] ?? $ad;
        $key = spl_object_id($group).json_encode([$ad->slots, $ad->custom], JSON_INVALID_UTF8_IGNORE);
        [$first, $route] = $this->byTexts[$key] ??= [
            $path,
            Route::of($path, $this->settings, $this->hops, $this->reader),
        ];
        if ($first === $path) {
            return $route->trace($context);
        }

        $blank = array_fill_keys($route->fields(), ''); // what the first ad has and this one has not

        return $route
            ->trace($context + $path->fields($path->dialect->namesFreeze) + $blank)
            ->movedTo($first->last(), $ad);
    }
}
