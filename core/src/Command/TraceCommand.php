<?php

declare(strict_types=1);

namespace Vestigon\Core\Command;

use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Findings\Inspector;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Naming\Patterns;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\TraceRequest;

/** ./vestigon trace: a trace request in, a trace with its findings out. */
final class TraceCommand implements Command
{
    /** @var array<string, array{TemplateReader, Inspector}> by dialect */
    private array $tools = [];

    private readonly RuleBook $rules;

    /** @param array<string, Dialect> $shipped by id */
    public function __construct(private readonly array $shipped)
    {
        $this->rules = RuleBook::all(array_values($shipped), ChannelsReader::shipped());
    }

    /** @throws UnusableInput */
    public function answer(Cursor $request): Answer
    {
        $read = TraceRequest::read($request, fn (string $id): ?Dialect => $this->shipped[$id] ?? null);
        $dialect = $read->path->dialect;
        [$reader, $inspector] =
            $request->has('naming') || ($this->shipped[$dialect->id] ?? null) !== $dialect
                ? $this->tools($dialect, $read->names)
                : ($this->tools[$dialect->id] ??= $this->tools($dialect, $read->names));
        $route = Route::of($read->path, $read->settings, $read->hops, $reader);
        $trace = $route->trace($read->context);
        $findings = [
            ...$inspector->path($read->path, $read->settings, $read->hops),
            ...$inspector->click(
                $read->path,
                $trace,
                $read->context,
                $read->settings,
                $route->page($read->context),
            ),
        ];

        return Answer::of($trace->toArray(), Inspector::sorted($findings));
    }

    /** @return array{TemplateReader, Inspector} */
    private function tools(Dialect $dialect, Patterns $names): array
    {
        $reader = new TemplateReader($dialect);
        $rules = $names->all === []
            ? $this->rules
            : RuleBook::all(array_values($this->shipped), ChannelsReader::shipped(), $names);

        return [$reader, new Inspector($rules, $reader)];
    }
}
