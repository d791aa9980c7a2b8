<?php

namespace App\Http\Requests;

/** A host as people type it into a field. */
final class HostName
{
    public const PATTERN = '/^(?=.{1,253}$)[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)+$/';

    public const WRONG =
        '“:input” is no host name. Write it like shop.example: lower case, no https:// and no path.';
}
