<?php

declare(strict_types=1);

namespace App\Http;

use App\Builds\CannotEdit;
use App\Builds\Conflict;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\JsonResponse;
use Illuminate\Session\TokenMismatchException;
use Illuminate\Validation\ValidationException;
use Magpie\Core\Format\CannotReadBuildFile;
use PDOException;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use Throwable;

/** Errors as RFC 9457 problem details: what happened, at which field, and what was kept. */
final class Problem
{
    public static function from(Throwable $e): JsonResponse
    {
        return match (true) {
            $e instanceof ValidationException => self::response(422, 'Some fields need another look', 'Nothing was stored.', [
                'errors' => collect($e->errors())->map(fn (array $messages, string $field): array => ['pointer' => '/'.str_replace('.', '/', $field), 'reason' => $messages[0]])->values()->all(),
            ]),
            $e instanceof CannotReadBuildFile => self::response(422, 'That cannot be taken as it stands', 'Nothing was stored.', ['errors' => [['pointer' => $e->pointer, 'reason' => $e->reason]]]),
            $e instanceof CannotEdit => self::response(422, 'That cannot be done', 'Nothing was stored.', ['errors' => [['pointer' => $e->pointer, 'reason' => $e->getMessage()]]]),
            $e instanceof Conflict => self::response(409, 'Changed on another screen', $e->getMessage(), ['clashes' => $e->clashes]),
            $e instanceof AuthenticationException => self::response(401, 'Sign in first', 'This needs an account of the workshop.'),
            $e instanceof TokenMismatchException => self::response(419, 'The page is too old', 'Load it again; what you typed is still on it.'),
            $e instanceof ModelNotFoundException => self::response(404, 'Not found', 'There is no such thing in your workshops.'),
            $e instanceof HttpExceptionInterface => self::response($e->getStatusCode(), $e->getStatusCode() === 404 ? 'Not found' : 'That is not possible', $e->getMessage() !== '' ? $e->getMessage() : 'There is no such thing in your workshops.', [], $e->getHeaders()),
            $e instanceof PDOException => self::response(503, 'The database does not answer', 'Nothing was stored. Try again in a moment; if it stays so, start Frugal Magpie again.'),
            default => self::response(500, 'Something went wrong here', 'Nothing was stored. The log says more.'),
        };
    }

    /**
     * @param  array<string, mixed>  $more
     * @param  array<string, mixed>  $headers
     */
    private static function response(int $status, string $title, string $detail, array $more = [], array $headers = []): JsonResponse
    {
        return new JsonResponse(['type' => 'about:blank', 'title' => $title, 'status' => $status, 'detail' => $detail] + $more, $status, $headers + ['Content-Type' => 'application/problem+json']);
    }
}
