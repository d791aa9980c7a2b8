<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

/** Values that stand for all values of their form. Each can be told apart wherever it turns up, however often it was encoded or shaped. */
final readonly class Stand
{
    private const PATTERN = '~qz([xy])(\d+)k~';

    /** What stands for a field's values of a form; the value itself where no other can stand for it. */
    public static function for(int $field, Form $form, string $value, bool $published): string
    {
        $mark = 'qz'.($published ? 'y' : 'x').$field.'k';

        return match ($form) {
            Form::None, Form::Bytes => $value,
            Form::Plain => $mark,
            Form::Text => $mark.Contexts::HOSTILE,
        };
    }

    /** @return list<int> the fields whose values turn up in some texts */
    public static function in(string ...$texts): array
    {
        $fields = [];
        foreach ($texts as $text) {
            if (str_contains($text, 'qz') && preg_match_all(self::PATTERN, $text, $found) > 0) {
                foreach ($found[2] as $field) {
                    $fields[(int) $field] = (int) $field;
                }
            }
        }

        return array_values($fields);
    }
}
