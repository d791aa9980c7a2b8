<?php

namespace App\Http;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** An answer that says what went wrong, in words for the person at the screen. */
final class Problem
{
    private const AWAY_SECONDS = 5;

    /** @param array<string, string> $headers */
    public static function response(int $status, string $message, array $headers = []): JsonResponse
    {
        return new JsonResponse(['message' => $message], $status, $headers);
    }

    /** The database can't be reached: nothing is lost, and it goes on by itself. */
    public static function away(Request $request): JsonResponse|Response
    {
        $message =
            'The database can’t be reached just now. Nothing was lost; it goes on by itself as soon as it is back.';
        $headers = ['Retry-After' => (string) self::AWAY_SECONDS];

        return $request->is('api/*')
            ? self::response(503, $message, $headers)
            : new Response($message, 503, ['Content-Type' => 'text/plain; charset=utf-8'] + $headers);
    }
}
