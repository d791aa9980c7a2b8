<?php

namespace App\SignIn;

/** An e-mail address as accounts are known by it: one spelling for all that a person might type. */
final class Email
{
    public static function normal(string $typed): string
    {
        return mb_strtolower((string) \Normalizer::normalize(trim($typed), \Normalizer::FORM_KC));
    }
}
