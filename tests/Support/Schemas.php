<?php

declare(strict_types=1);

namespace Tests\Support;

use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;

/** The published shapes: the build file's schema and those of the JSON surface. */
final class Schemas
{
    private const BASE = 'https://magpie.invalid/docs/';

    /**
     * What a value breaks of a shape, as "pointer: reason".
     *
     * @param  string  $shape  "format/build.schema.json" or "api/openapi.json#/components/schemas/Overview"
     * @return list<string>
     */
    public static function breaks(string $json, string $shape): array
    {
        static $validator = null;
        if ($validator === null) {
            $validator = new Validator(max_errors: 5);
            foreach (['format/build.schema.json', 'api/openapi.json'] as $file) {
                $schema = json_decode((string) file_get_contents(dirname(__DIR__, 2)."/docs/{$file}"));
                unset($schema->{'$id'});
                $validator->resolver()->registerRaw($schema, self::BASE.$file);
            }
        }
        $result = $validator->validate(json_decode($json), self::BASE.$shape);
        $error = $result->error();

        return $error === null
            ? []
            : array_values(
                array_map(
                    static fn (string $pointer, array $reasons): string => "{$pointer}: ".implode('; ', $reasons),
                    array_keys((new ErrorFormatter)->format($error)),
                    (new ErrorFormatter)->format($error),
                ),
            );
    }
}
