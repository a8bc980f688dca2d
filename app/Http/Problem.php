<?php

declare(strict_types=1);

namespace App\Http;

use App\Builds\CannotEdit;
use App\Builds\Conflict;
use App\Imports\CannotImport;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\Exceptions\PostTooLargeException;
use Illuminate\Http\JsonResponse;
use Illuminate\Session\TokenMismatchException;
use Illuminate\Validation\ValidationException;
use JsonException;
use League\Flysystem\FilesystemException;
use Magpie\Core\Format\CannotReadBuildFile;
use PDOException;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Throwable;

/** Errors as RFC 9457 problem details: what happened, at which field, and what was kept. */
final class Problem
{
    private const NOTHING = 'Nothing was stored.';

    private const NO_SUCH_THING = 'There is no such thing in your workshops.';

    public static function from(Throwable $e): JsonResponse
    {
        return match (true) {
            $e instanceof ValidationException => self::response(422, 'Some fields need another look', self::NOTHING, [
                'errors' => collect($e->errors())
                    ->map(
                        fn (array $messages, string $field): array => [
                            'pointer' => '/'.str_replace('.', '/', $field),
                            'reason' => $messages[0],
                        ],
                    )
                    ->values()
                    ->all(),
            ]),
            $e instanceof CannotReadBuildFile => self::response(
                422,
                'That cannot be taken as it stands',
                self::NOTHING,
                ['errors' => [['pointer' => $e->pointer, 'reason' => $e->reason]]],
            ),
            $e instanceof CannotEdit => self::response(422, 'That cannot be done', self::NOTHING, [
                'errors' => [['pointer' => $e->pointer, 'reason' => $e->getMessage()]],
            ]),
            $e instanceof CannotImport => self::response(
                422,
                'This list cannot be stored',
                "{$e->getMessage()} ".self::NOTHING,
            ),
            $e instanceof Conflict => self::response(409, 'Changed on another screen', $e->getMessage(), [
                'clashes' => $e->clashes,
            ]),
            $e instanceof AuthenticationException => self::response(
                401,
                'Sign in first',
                'This needs an account of the workshop.',
            ),
            $e instanceof TokenMismatchException => self::response(
                419,
                'The page is too old',
                'Load it again; what you typed is still on it.',
            ),
            $e instanceof ModelNotFoundException,
            $e instanceof NotFoundHttpException && $e->getPrevious() instanceof ModelNotFoundException => self::response(404, 'Not found', self::NO_SUCH_THING),
            $e instanceof PostTooLargeException => self::response(
                413,
                'Too large',
                'What was sent is larger than can be taken here. '.self::NOTHING,
            ),
            $e instanceof HttpExceptionInterface => self::http($e),
            $e instanceof PDOException => self::database($e),
            $e instanceof JsonException => self::response(422, 'That cannot be taken as it stands', self::NOTHING, [
                'errors' => [['pointer' => '', 'reason' => 'holds text that is not UTF-8, or is nested too deep.']],
            ]),
            $e instanceof FilesystemException => self::response(
                507,
                'The file could not be written',
                'The disk may be full. '.self::NOTHING,
            ),
            default => self::response(500, 'Something went wrong here', self::NOTHING.' The log says more.'),
        };
    }

    private static function http(HttpExceptionInterface $e): JsonResponse
    {
        // The framework's own words name classes and routes; only what this application says itself goes out.
        $own =
            $e->getPrevious() === null &&
            ! str_contains($e->getMessage(), '\\') &&
            ! str_starts_with($e->getMessage(), 'The route');
        [$title, $detail] = match ($e->getStatusCode()) {
            404 => ['Not found', self::NO_SUCH_THING],
            405 => ['Not possible here', 'This address does not take that kind of request.'],
            419 => ['The page is too old', 'Load it again; what you typed is still on it.'],
            429 => ['Too many tries', 'Wait a little before the next one. '.self::NOTHING],
            default => ['That is not possible', 'That is not possible.'],
        };

        return self::response(
            $e->getStatusCode(),
            $title,
            $own && $e->getMessage() !== '' && ! in_array($e->getStatusCode(), [405, 419], true)
                ? $e->getMessage()
                : $detail,
            [],
            $e->getHeaders(),
        );
    }

    /** What the database says, in words: only one that cannot be reached is called that. */
    private static function database(PDOException $e): JsonResponse
    {
        $code = (int) ($e->errorInfo[1] ?? $e->getCode());

        return match (true) {
            $code === 1062 => self::response(
                409,
                'That is there already',
                'An entry of this name was stored by somebody else at the same moment. '.self::NOTHING,
            ),
            in_array($code, [1451, 1452], true) => self::response(
                409,
                'Something else is in the way',
                'An entry this depends on was changed or deleted at the same moment. '.self::NOTHING,
            ),
            in_array($code, [1205, 1213], true) => self::response(
                503,
                'Too many at once',
                'Others were writing to the same build for too long. '.self::NOTHING.' Try again.',
                [],
                ['Retry-After' => '2'],
            ),
            in_array($code, [3, 28, 1021, 1030, 1114, 1877], true) => self::response(
                507,
                'The disk is full',
                self::NOTHING.' Make room on the machine that serves Frugal Magpie, then try again.',
            ),
            in_array($code, [1264, 1265, 1292, 1366, 1406, 4025, 3819], true) => self::response(
                422,
                'That cannot be kept',
                'A value is longer or larger than can be stored. '.self::NOTHING,
            ),
            in_array($code, [1153], true) => self::response(
                413,
                'Too large',
                'This is larger than can be stored at once. '.self::NOTHING,
            ),
            in_array($code, [1045, 1040, 1053, 2002, 2003, 2006, 2013, 1927], true) => self::response(
                503,
                'The database does not answer',
                self::NOTHING.' Try again in a moment; if it stays so, start Frugal Magpie again.',
                [],
                ['Retry-After' => '2'],
            ),
            default => self::response(500, 'The database refused that', self::NOTHING.' The log says more.'),
        };
    }

    /**
     * @param  array<string, mixed>  $more
     * @param  array<string, mixed>  $headers
     */
    private static function response(
        int $status,
        string $title,
        string $detail,
        array $more = [],
        array $headers = [],
    ): JsonResponse {
        return new JsonResponse(
            ['type' => 'about:blank', 'title' => $title, 'status' => $status, 'detail' => $detail] + $more,
            $status,
            $headers + ['Content-Type' => 'application/problem+json'],
            JSON_INVALID_UTF8_SUBSTITUTE,
        );
    }
}
