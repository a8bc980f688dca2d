<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Format;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\Withheld;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What somebody outside sees of a build: the machine, without who made it and what it cost. */
final class WithheldTest extends TestCase
{
    /**
     * @return iterable<string, array{string}>
     */
    public static function demos(): iterable
    {
        foreach (['linnet', 'dunlin', 'plover'] as $name) {
            yield $name => [$name];
        }
    }

    /**
     * @return array<string, mixed>
     */
    private static function demo(string $name): array
    {
        $read = BuildFile::read((string) file_get_contents(dirname(__DIR__, 3)."/demo/{$name}.json"));

        return BuildFile::data($read);
    }

    #[DataProvider('demos')]
    public function test_no_name_and_no_price_is_left_and_the_machine_is_judged_the_same(string $name): void
    {
        $whole = self::demo($name);
        $shown = Withheld::from($whole, false);
        $text = (string) json_encode($shown, JSON_UNESCAPED_UNICODE);
        foreach (['Isla Brae', 'Tam Corrie', 'Morag, next bay', '"price"', '"budget"', '"cost"'] as $word) {
            self::assertStringNotContainsString($word, $text);
        }
        self::assertDoesNotMatchRegularExpression('/"paid":"(?!0\.00")|GBP \d|£\s?\d/u', $text);
        $machine = BuildFile::build($shown, kept: true);
        self::assertSame($shown, BuildFile::data($machine), 'It is in canonical form, and reads back as it is.');
        $judge = static function (array $data): array {
            $verdicts = [];
            foreach (Rules::inspector()->inspect(BuildFile::build($data, kept: true))->findings as $finding) {
                $verdicts[$finding->key()] = $finding->verdict->value;
            }

            // Without prices nothing is said of the budget.
            return array_diff_key($verdicts, ['S01/budget' => true]);
        };
        self::assertSame($judge($whole), $judge($shown));
        self::assertSame(
            $whole['offers'] ?? null,
            Withheld::from($whole, true)['offers'] ?? null,
            'With prices, offers stay as they are.',
        );
    }

    public function test_names_in_notes_go_too_and_only_whole_words(): void
    {
        $data = [
            'build' => ['name' => 'Bramble'],
            'readings' => [['ref' => 'r', 'by' => 'Tam']],
            'faults' => [['ref' => 'tam', 'what' => 'Tam saw it. Tamped down. Cost £4.90 and EUR 12.00, or 3 EUR.', 'by' => 'looking']],
        ];
        self::assertSame(
            [['ref' => 'tam', 'what' => 'someone saw it. Tamped down. Cost £4.90 and EUR 12.00, or 3 EUR.', 'by' => 'looking']],
            Withheld::from($data, true)['faults'],
        );
        self::assertSame(
            'someone saw it. Tamped down. Cost … and …, or ….',
            Withheld::from($data, false)['faults'][0]['what'],
        );
        self::assertSame('someone paid …', Withheld::text('Wren paid GBP 3', false, ['Wren']));
    }

    /** A section that begins to name people, or to hold money, has to be decided about here. */
    public function test_every_field_that_could_name_somebody_is_decided_about(): void
    {
        $others = ['faults.*.by', 'axes.*.drive.by', 'axes.*.homing.by', 'places.*.x.by', 'places.*.y.by', 'places.*.z.by'];
        $found = [];
        $walk = static function (mixed $value, string $path) use (&$walk, &$found): void {
            if (! is_array($value)) {
                preg_match('/\.(by|who|helper)$/', $path) === 1 && $found[$path] = $value;

                return;
            }
            foreach ($value as $key => $one) {
                $walk($one, $path.'.'.(is_int($key) ? '*' : $key));
            }
        };
        foreach (self::demos() as [$name]) {
            foreach (Withheld::from(self::demo($name), false) as $section => $entries) {
                $walk($entries, $section);
            }
        }
        $left = array_filter($found, static fn (mixed $v): bool => $v !== Withheld::SOMEONE);
        self::assertSame([], array_diff(array_keys($left), $others));
        self::assertGreaterThan(8, count($found) - count($left));
    }
}
