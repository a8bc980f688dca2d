<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** JSON shrinks to about a tenth; an answer worth it goes out compressed to whoever takes it so. */
final class Compressed
{
    private const WORTH = 2_048;

    /** @param  Closure(Request): Response  $next */
    public function handle(Request $request, Closure $next): Response
    {
        $response = $next($request);
        if ($response instanceof StreamedResponse || $response instanceof BinaryFileResponse) {
            return $response;
        }
        $body = (string) $response->getContent();
        $takes = in_array(
            'gzip',
            array_map(
                static fn (string $e): string => trim(explode(';', $e)[0]),
                explode(',', strtolower((string) $request->headers->get('Accept-Encoding'))),
            ),
            true,
        );
        $text =
            preg_match('#^(application/(problem\+)?json|text/)#', (string) $response->headers->get('Content-Type')) ===
            1;
        if ($takes && $text && strlen($body) > self::WORTH && ! $response->headers->has('Content-Encoding')) {
            $response->setContent((string) gzencode($body, 4));
            $response->headers->set('Content-Encoding', 'gzip');
            $response->headers->remove('Content-Length');
        }
        if ($text) {
            $response->setVary('Accept-Encoding', false);
        }

        return $response;
    }
}
