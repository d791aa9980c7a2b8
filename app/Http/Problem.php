<?php

namespace App\Http;

use Illuminate\Http\JsonResponse;

/** An answer that says what went wrong, in words for the person at the screen. */
final class Problem
{
    public static function response(int $status, string $message): JsonResponse
    {
        return new JsonResponse(['message' => $message], $status);
    }
}
