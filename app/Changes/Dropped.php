<?php

namespace App\Changes;

/** A change was dropped, or begun anew, while it was being worked out. */
final class Dropped extends \Exception
{}
