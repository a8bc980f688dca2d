<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Inspection;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Reference\Instruments;
use Magpie\Core\Reference\Terms;
use PHPUnit\Framework\TestCase;

/** Every check and every word of the trade has its two sentences, and none is left over. */
final class TermsTest extends TestCase
{
    public function test_every_check_says_what_it_is_and_how_to_find_out(): void
    {
        $ids = array_map(static fn (Check $c): string => $c->card()->id, Rules::inspector()->checks);
        $without = array_values(array_filter($ids, static fn (string $id): bool => Terms::ofCheck($id) === null));

        self::assertSame([], $without, 'core/reference/terms.php has two sentences for every check.');
        foreach ([...array_map(Terms::ofCheck(...), $ids), ...array_values(Terms::ofTheTrade())] as $term) {
            foreach ($term ?? [] as $sentence) {
                self::assertMatchesRegularExpression('/^\p{Lu}.*[.?]$/u', $sentence);
            }
        }
        self::assertNull(Terms::ofCheck('E99'));
    }

    public function test_a_limit_is_its_makers_word_and_a_size_is_measured(): void
    {
        self::assertSame('callipers', Instruments::of('body_width', Dimension::Length)[0]);
        self::assertSame('luggage scale and a 100 mm arm', Instruments::of('holding_torque', Dimension::Torque)[0]);
        self::assertSame("the maker's sheet", Instruments::of('max_voltage', Dimension::Voltage)[0]);
        self::assertSame('clamp meter', Instruments::of('rated_current', Dimension::Current)[0]);
        self::assertSame("the maker's sheet", Instruments::of('rated_current', Dimension::Current, rated: true)[0]);
        self::assertSame("the maker's datasheet", Instruments::of('connector', null)[0]);
    }
}
