<?php

namespace App\Accounts;

/** A newer proof of the same account has begun. */
final class Superseded extends \Exception
{}
