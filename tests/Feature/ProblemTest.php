<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Http\Problem;
use Illuminate\Database\QueryException;
use PDOException;
use PHPUnit\Framework\Attributes\DataProvider;

/** What the database says comes out in words that say what to do; only one that cannot be reached is called that. */
final class ProblemTest extends FeatureTestCase
{
    /**
     * @return iterable<string, array{int, int, string}>
     */
    public static function said(): iterable
    {
        yield 'a name that is there already' => [1062, 409, 'That is there already'];
        yield 'a row that others point at' => [1451, 409, 'Something else is in the way'];
        yield 'two that wait for each other' => [1213, 503, 'Too many at once'];
        yield 'one that waited too long' => [1205, 503, 'Too many at once'];
        yield 'a full table space' => [1114, 507, 'The disk is full'];
        yield 'a full disk' => [1021, 507, 'The disk is full'];
        yield 'no room for a temporary file' => [3, 507, 'The disk is full'];
        yield 'a text too long' => [1406, 422, 'That cannot be kept'];
        yield 'a condition of the table' => [4025, 422, 'That cannot be kept'];
        yield 'a packet too large' => [1153, 413, 'Too large'];
        yield 'nobody there' => [2002, 503, 'The database does not answer'];
        yield 'gone in the middle' => [2006, 503, 'The database does not answer'];
        yield 'a table that is missing' => [1146, 500, 'The database refused that'];
    }

    #[DataProvider('said')]
    public function test_each_error_of_the_database_says_what_happened(int $code, int $status, string $title): void
    {
        $cause = new PDOException("SQLSTATE[HY000]: General error: {$code} secret_table.secret_column");
        $cause->errorInfo = ['HY000', $code, 'secret'];
        $answer = Problem::from(new QueryException('mariadb', 'select * from secret_table', [], $cause));

        self::assertSame([$status, $title], [$answer->getStatusCode(), $answer->getData(true)['title']]);
        self::assertStringNotContainsString('secret', (string) $answer->getContent());
    }

    public function test_a_real_duplicate_is_told_from_a_database_that_is_away(): void
    {
        try {
            \Illuminate\Support\Facades\DB::table('users')->insert([
                'name' => 'Isla',
                'email' => 'isla@thistle-quay.example',
                'password' => 'x',
            ]);
            self::fail('An address was taken twice.');
        } catch (QueryException $e) {
            self::assertSame(409, Problem::from($e)->getStatusCode());
        }
    }
}
