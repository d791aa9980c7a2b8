<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Template\Distinct;
use Vestigon\Core\Trace\Route;

/** Ads with the same texts. What is true of them is decided once for all that look alike in what matters. */
final class AdKind
{
    /** @var array<string, AlikeAds> by looks() */
    public array $alike = [];

    /** @var array<string, Looks> by looks that do not decide: what does */
    public array $closer = [];

    /** @var array<string, Shown> by the names that some findings are about; all under '' where none is */
    public array $shown = [];

    /**
     * @param Looks $looks what matters of the ads
     * @param bool $names is any finding about the campaign's name?
     */
    public function __construct(
        public readonly Route $route,
        public readonly ?KindProof $proof,
        private readonly Looks $looks,
        public readonly bool $names,
    ) {}

    /** Ads of the kind with the same looks are alike, but where only a closer look decides. */
    public function looks(Node $ad, Above $above): string
    {
        $looks = $above->looks[$this->looks->id] ?? $above->looks($this->looks);
        // as isPlainWord() tells it, without a call for each of a million ads
        $looks .=
            $this->looks->areOfId && $ad->id !== '' && strspn($ad->id, ValueForm::PLAIN) === strlen($ad->id)
                ? 'p'
                : $this->looks->ofAd($ad);

        return $this->names ? $looks.Distinct::of($above->names) : $looks;
    }
}
