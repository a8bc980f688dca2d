<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Closure;
use Illuminate\Http\Exceptions\PostTooLargeException;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** JSON is decoded whole, so it is smaller than what may be uploaded as a file. */
final class BodySize
{
    /** A build file of twenty million characters, quoted. */
    private const LARGEST = 30 * 1024 * 1024;

    /**
     * @param  Closure(Request): Response  $next
     *
     * @throws PostTooLargeException
     */
    public function handle(Request $request, Closure $next): Response
    {
        if ($request->isJson() && strlen((string) $request->getContent()) > self::LARGEST) {
            throw new PostTooLargeException;
        }

        return $next($request);
    }
}
