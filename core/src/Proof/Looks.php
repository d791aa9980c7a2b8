<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Template\Distinct;

/** Tells ads with the same texts apart by what matters of them: the form of some fields, the very value of others. */
final readonly class Looks
{
    public string $id;

    /** Does nothing of the ad itself matter but the form of its id? So it is with most. */
    public bool $areOfId;

    /** @var list<string> */
    private array $aboveByForm;

    /** @var list<string> */
    private array $aboveByValue;

    /** @var list<string> */
    private array $ownByForm;

    /** @var list<string> */
    private array $ownByValue;

    /**
     * @param list<string> $byForm fields of an ad and what stands above it
     * @param list<string> $byValue
     */
    public function __construct(public array $byForm, public array $byValue, private bool $namesFreeze)
    {
        $this->id = implode(',', $byForm).'|'.implode(',', $byValue);
        $isOwn = static fn (string $f): bool => str_starts_with($f, 'ad.');
        $this->ownByForm = array_values(array_filter($byForm, $isOwn));
        $this->ownByValue = array_values(array_filter($byValue, $isOwn));
        $this->areOfId = $this->ownByForm === ['ad.id'] && $this->ownByValue === [];
        $this->aboveByForm = array_values(array_diff($byForm, $this->ownByForm));
        $this->aboveByValue = array_values(array_diff($byValue, $this->ownByValue));
    }

    /**
     * @param array<string, string> $sent
     * @param array<string, string> $known
     */
    public function ofAbove(array $sent, array $known): string
    {
        $looks = '';
        foreach ($this->aboveByForm as $field) {
            $looks .= self::look($sent[$field] ?? '', $known[$field] ?? '');
        }
        foreach ($this->aboveByValue as $field) {
            $looks .= Distinct::of($sent[$field] ?? '', $known[$field] ?? '');
        }

        return $looks;
    }

    public function ofAd(Node $ad): string
    {
        $looks = '';
        foreach ($this->ownByForm as $field) {
            if ($field === 'ad.id') {
                $looks .= self::form($ad->id);
            } elseif ($this->namesFreeze) {
                $looks .= self::look($this->value($ad, $field, true), $this->value($ad, $field, false));
            } else {
                $looks .= self::form($this->value($ad, $field, true));
            }
        }
        foreach ($this->ownByValue as $field) {
            $looks .= Distinct::of($this->value($ad, $field, true), $this->value($ad, $field, false));
        }

        return $looks;
    }

    private function value(Node $ad, string $field, bool $published): string
    {
        return match ($field) {
            'ad.id' => $ad->id,
            'ad.name' => $published && $this->namesFreeze ? $ad->publishedName ?? $ad->name : $ad->name,
            default => $ad->attributes[substr($field, 3)] ?? '',
        };
    }

    private static function look(string $sent, string $known): string
    {
        return self::form($sent).($sent === $known ? '' : '/'.self::form($known));
    }

    private static function form(string $value): string
    {
        $form = ValueForm::of($value);

        return $form === ValueForm::Bytes ? 'b'.Distinct::of($value) : $form->value;
    }
}
