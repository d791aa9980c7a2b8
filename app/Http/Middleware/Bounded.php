<?php

namespace App\Http\Middleware;

use App\Http\Problem;
use Closure;
use Illuminate\Http\Request;
use Illuminate\Support\Str;
use Symfony\Component\HttpFoundation\Response;

/**
 * Refuses a request that is too large, too deep or no text before anything loops over it. Bodies of the API are JSON.
 */
final class Bounded
{
    public function handle(Request $request, Closure $next): Response
    {
        $query = (string) $request->server->get('QUERY_STRING');
        if (strlen($query) > config('limits.query')) {
            return Problem::response(
                414,
                'The address is too long: behind its ? stand '
                    .number_format(strlen($query))
                    .' bytes, at most '
                    .number_format(config('limits.query'))
                    .' can.',
            );
        }
        if (
            ! mb_check_encoding(urldecode($query), 'UTF-8')
            || ! mb_check_encoding(rawurldecode($request->path()), 'UTF-8')
        ) {
            return self::noText('address');
        }
        if (! $request->is('api/*')) {
            return $next($request);
        }

        return self::refusal($request) ?? $next($request);
    }

    private static function refusal(Request $request): ?Response
    {
        $most = self::mostBytes($request->path());
        $announced = (int) $request->headers->get('Content-Length', '0');
        $body = $announced > $most ? '' : $request->getContent();
        if (max($announced, strlen($body)) > $most) {
            return Problem::response(
                413,
                'The request has '
                    .number_format(max($announced, strlen($body)))
                    .' bytes; at most '
                    .number_format($most)
                    .' can be taken here. Nothing was changed; send less at once.',
            );
        }
        if ($body === '' && $request->request->count() + $request->files->count() === 0) {
            return null;
        }
        if (! $request->isJson()) {
            return Problem::response(415, 'The API takes JSON: say Content-Type: application/json.');
        }
        if (! mb_check_encoding($body, 'UTF-8')) {
            return self::noText('body');
        }
        $json = json_decode($body, true, config('limits.depth') + 1);
        if (json_last_error() !== JSON_ERROR_NONE || ! is_array($json)) {
            $why =
                json_last_error() === JSON_ERROR_DEPTH
                    ? 'it is nested deeper than '.config('limits.depth').' levels'
                    : (json_last_error() === JSON_ERROR_NONE
                        ? 'an object is wanted'
                        : json_last_error_msg());

            return Problem::response(400, "The body is no JSON that can be taken: {$why}.");
        }
        $left = config('limits.values');

        return self::fits($json, $left)
            ? null
            : Problem::response(
                413,
                $left < 0
                    ? 'The request holds more than '
                        .number_format(config('limits.values'))
                        .' values. Nothing was changed; send less at once.'
                    : 'The request holds a number that is too large.',
            );
    }

    private static function mostBytes(string $path): int
    {
        foreach (config('limits.bodies') as $pattern => $bytes) {
            if (Str::is($pattern, $path) && substr_count($pattern, '/') === substr_count($path, '/')) {
                return $bytes;
            }
        }

        return config('limits.body');
    }

    /** @param array<mixed> $json */
    private static function fits(array $json, int &$left): bool
    {
        foreach ($json as $value) {
            if (
                --$left < 0
                || (is_float($value) && ! is_finite($value))
                || (is_array($value) && ! self::fits($value, $left))
            ) {
                return false;
            }
        }

        return true;
    }

    private static function noText(string $where): Response
    {
        return Problem::response(
            400,
            "The request's {$where} holds bytes that are no UTF-8. Nothing was changed.",
        );
    }
}
