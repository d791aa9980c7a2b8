<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\AutoTagMode;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Choice;
use Vestigon\Core\Plan\Fields;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Template\Distinct;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Url\Address;

/** Says why something is unmet: the cause, where what shows is a symptom of it; each node and key once. */
final class Causes
{
    private readonly Prover $prover;

    private readonly TemplateReader $reader;

    /** @var array<string, string> by parent, what an ad says, and key */
    private array $known = [];

    private function __construct(private readonly Task $task, private readonly Account $after)
    {
        $this->prover = Prover::for($after, $task->plan);
        $this->reader = new TemplateReader($after->dialect);
    }

    public static function named(Compiled $compiled, Task $task): Compiled
    {
        if ($compiled->unmet === []) {
            return $compiled;
        }
        $causes = new self($task, Write::applied($task->account, $compiled->writes));
        $named = [];
        foreach ($compiled->unmet as $unmet) {
            $named["{$unmet->node} {$unmet->key}"] ??=
                $unmet->symptom === null || $unmet->key === '' ? $unmet : $unmet->because($causes->of($unmet));
        }

        return $compiled->lacking(array_values($named));
    }

    private function of(Unmet $unmet): string
    {
        $id = Distinct::of(
            $this->after->parents[$unmet->node],
            $this->after->nodes[$unmet->node]->saidInAll(),
            $unmet->key,
            $unmet->reason,
        );

        return $this->known[$id] ??= $this->cause($unmet, $this->after->pathTo($unmet->node));
    }

    private function cause(Unmet $unmet, Path $path): string
    {
        $dialect = $this->after->dialect;
        $choice = $this->prover->truthOf($path)->choices[$unmet->key] ?? null;
        $tag = $dialect->autoTags?->tag($unmet->key);
        $mode = $this->after->settings->autoTags ?? $dialect->autoTags?->default;

        $isOff = $unmet->key === $dialect->clickId?->parameter && Switching::isOff($this->after);
        $landing = (new Inheritance($path))->effective(SlotKind::Landing)?->text;
        $isAdded = in_array($unmet->key, $this->task->kept->by($unmet->node), true) && ! $this->task->keeps();

        return match (true) {
            $isOff => "the click ID is switched off for the account{$this->left()}",
            $choice === null => $unmet->reason,
            $landing !== null && ! Address::isWeb($landing) => 'its landing URL is no web address, so there is no page '
                .'that could read it',
            $isAdded => "a redirect on the way adds {$unmet->key} itself",
            $tag !== null && $mode !== AutoTagMode::Off => "{$dialect->title} adds a tag of its own with this "
                ."key{$this->left()}",
            default => $this->ofTexts($choice, $path)
                ?? "no text could give it without harm to what arrives today; as it is: {$unmet->reason}",
        };
    }

    /** Why no text can carry it; null: one could. */
    private function ofTexts(Choice $choice, Path $path): ?string
    {
        $dialect = $this->after->dialect;
        $fields = $path->fields(false);
        foreach ($choice->fields() as $field) {
            if (! mb_check_encoding($fields[$field] ?? '', 'UTF-8')) {
                return "{$field} is no UTF-8 text";
            }
        }
        $clicks = array_values(
            array_filter($choice->fields(), static fn (string $f): bool => Fields::owner($f) === null),
        );
        if ($clicks === []) {
            return null;
        }
        $filled = array_filter(SlotKind::cases(), fn (SlotKind $kind): bool => $this->isFilled($kind, $path));
        if ($filled === []) {
            return "{$clicks[0]} is known at the click only, and {$dialect->title} fills no tokens in the texts that "
                .'it reads here';
        }
        $template = (new Inheritance($path))->effective(SlotKind::Template)?->text;
        $redirect = $template === null ? null : Redirect::of($this->reader->read($template), $this->after->hops);

        return $redirect !== null
            && ! $redirect->isStraight()
            && ! $redirect->carries()
            && $filled === [SlotKind::Template]
            ? "{$clicks[0]} is known at the click only, and the redirect in the template passes no parameters on"
            : null;
    }

    private function isFilled(SlotKind $kind, Path $path): bool
    {
        $slot = $this->after->dialect->slot($kind);
        $levels = array_filter(
            $path->nodes,
            static fn ($n): bool => $slot !== null && $slot->countsAt($n->level, $path->campaignType()),
        );

        return $slot !== null
            && $this->after->dialect->syntax !== null
            && $levels !== []
            && ($kind !== SlotKind::Landing || $slot->tokens);
    }

    /** Why nothing is switched, where it might have been. */
    private function left(): string
    {
        return match (true) {
            $this->task->policy->switches === Switches::Leave => ', and switches are to be left alone',
            ! $this->task->scope->isWhole() => ', and only a part of the account is to be written to',
            default => '',
        };
    }
}
