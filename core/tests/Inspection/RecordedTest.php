<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Inspection;

use Magpie\Core\Assembly\Recorded;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Families\Catalogue;
use Magpie\Core\Format\BuildFile;
use PHPUnit\Framework\TestCase;

/** "Which checks read this" is what was read, not what somebody wrote down. */
final class RecordedTest extends TestCase
{
    public function test_the_table_is_what_is_recorded_today(): void
    {
        $machines = array_map(
            static fn (string $name) => BuildFile::read(
                (string) file_get_contents(dirname(__DIR__, 3)."/demo/{$name}.json"),
            ),
            ['dunlin', 'linnet', 'plover'],
        );

        self::assertSame(Recorded::anew($machines), Recorded::reads(), 'Run bin/magpie docs.');
    }

    public function test_it_names_what_every_check_is_known_to_rest_on(): void
    {
        $reads = Recorded::reads();

        self::assertSame(array_map(static fn ($c): string => $c->id, Rules::inspector()->cards), array_keys($reads));
        self::assertContains('heater.rated_power', $reads['E01']);
        self::assertContains('power_supply.output_voltage', $reads['E04'], 'Through the circuits as well.');
        self::assertContains('printed_part.material', $reads['M13']);
        self::assertNotContains('heater.plate_mass', $reads['E01']);
        foreach (array_merge(...array_values($reads)) as $spec) {
            [$family, $key] = explode('.', $spec);
            self::assertNotNull(Catalogue::standard()->find($family)?->field($key), $spec);
        }
    }
}
