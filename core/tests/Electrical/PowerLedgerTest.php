<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Electrical\Views\PowerLedger;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What each output can give, as the view of power tells it. */
final class PowerLedgerTest extends TestCase
{
    /**
     * @return iterable<string, array{array<string, string>, string|null, float|null}>
     */
    public static function entries(): iterable
    {
        yield 'the fuse in it' => [['rated_current' => '10 A', 'fuse_rating' => '6.3 A'], '13 A', 6.3];
        yield 'its own rating' => [['rated_current' => '10 A'], '13 A', 10.0];
        yield 'the outlet' => [['rated_current' => '16 A', 'fuse_rating' => '16 A'], '13 A', 13.0];
        yield 'its rating where the outlet is not said' => [['rated_current' => '10 A'], null, 10.0];
        yield 'nothing that is said' => [[], null, null];
    }

    /** @param  array<string, string>  $specs */
    #[DataProvider('entries')]
    public function test_an_entry_gives_the_least_of_outlet_rating_and_fuse(array $specs, ?string $outlet, ?float $limit): void
    {
        $file = Examples::file(
            [Examples::part('inlet', 'mains_inlet', $specs)],
            $outlet === null ? [] : ['site' => ['mains_voltage' => '230 V', 'outlet' => $outlet]],
        );
        [$idle] = (new PowerLedger(new Survey((new SampleBuild($file))->build)))->toArray();
        $entry = array_values(array_filter($idle['outputs'], static fn (array $o): bool => $o['mains']))[0];
        self::assertSame($limit, $entry['limit']);
    }
}
