<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Template\StrangeWord;

/**
 * Values that stand for all values of their form. Each can be told apart wherever it turns up, however often it was
 * encoded or shaped, and turns up nowhere else: no text or value that was at hand when it was made holds it.
 */
final readonly class StandIns
{
    private string $word;

    /** @param string ...$texts all that the clicks are made of */
    public function __construct(string ...$texts)
    {
        $this->word = StrangeWord::to(...$texts);
    }

    /** What stands for a field's values of a form; the value itself where no other can stand for it. */
    public function for(int $field, ValueForm $form, string $value, bool $published): string
    {
        $mark = $this->word.($published ? 'y' : 'x').$field.'k';

        return match ($form) {
            ValueForm::None, ValueForm::Bytes => $value,
            ValueForm::Plain => $mark,
            ValueForm::Text => $mark.Contexts::HOSTILE,
        };
    }

    /** @return list<int> the fields whose values turn up in some texts */
    public function in(string ...$texts): array
    {
        $fields = [];
        foreach ($texts as $text) {
            if (
                str_contains($text, $this->word)
                && preg_match_all("~{$this->word}[xy](\d+)k~", $text, $found) > 0
            ) {
                foreach ($found[1] as $field) {
                    $fields[(int) $field] = (int) $field;
                }
            }
        }

        return array_values($fields);
    }
}
