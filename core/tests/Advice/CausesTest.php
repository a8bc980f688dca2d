<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Advice;

use Magpie\Core\Advice\Cause;
use Magpie\Core\Advice\Causes;
use Magpie\Core\Advice\InspectionReport;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\Rules\ContactLoad;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\TestCase;

final class CausesTest extends TestCase
{
    /**
     * @param  array<string, mixed>  $file
     */
    private static function inspect(array $file): Inspection
    {
        return Rules::inspector()->inspect((new SampleBuild($file))->build);
    }

    /**
     * @return list<string>
     */
    private static function keys(Cause $cause): array
    {
        return array_map(static fn ($f): string => $f->key(), $cause->findings);
    }

    /**
     * Three fans on a rail of 24 V.
     *
     * @param  list<string>  $stand  the highest voltage each takes
     * @return array<string, mixed>
     */
    private static function fans(array $stand): array
    {
        $parts = [
            Examples::part('psu', 'power_supply', [
                'output_voltage' => '24 V',
                'rated_current' => '10 A',
                'contact_rating' => '10 A',
            ]),
        ];
        $leads = [];
        foreach ($stand as $i => $volts) {
            $parts[] = Examples::part("fan{$i}", 'fan', [
                'rated_current' => '0.1 A',
                'min_voltage' => '10 V',
                'max_voltage' => $volts,
            ]);
            $leads[] = ['ref' => "W{$i}", 'from' => 'psu.out', 'to' => "fan{$i}.power"];
        }

        return Examples::file($parts, ['leads' => $leads]);
    }

    public function test_a_rail_that_is_wrong_for_most_of_what_hangs_on_it_is_one_cause(): void
    {
        $rail = array_values(
            array_filter(
                Causes::of(self::inspect(self::fans(['12 V', '13 V', '27 V']))),
                static fn (Cause $c): bool => $c->verdict() === Verdict::Danger,
            ),
        );
        self::assertCount(1, $rail);
        self::assertEqualsCanonicalizing(['E06/fan0.power', 'E06/fan1.power'], self::keys($rail[0]));
        self::assertStringContainsString('So too: fan', $rail[0]->says);

        // One fan of three is a fan that is wrong.
        $alone = self::inspect(self::fans(['12 V', '27 V', '27 V']));
        $danger = array_values(
            array_filter(Causes::of($alone), static fn (Cause $c): bool => $c->verdict() === Verdict::Danger),
        );
        self::assertSame([['E06/fan0.power']], array_map(self::keys(...), $danger));
    }

    public function test_doubts_that_wait_for_one_value_are_one_line(): void
    {
        $file = ContactLoad::bedOn(2);
        unset($file['parts'][1]['specs']['rated_power']);
        $causes = Causes::of(self::inspect($file));
        $waiting = array_values(
            array_filter(
                $causes,
                static fn (Cause $c): bool => $c->asks === 'parts/bed/specs/rated_power' ||
                    str_contains($c->says, 'rated power of bed'),
            ),
        );

        self::assertCount(1, $waiting);
        self::assertGreaterThan(2, count($waiting[0]->findings));
        self::assertStringContainsString('wait for it', $waiting[0]->says);
    }

    public function test_what_can_burn_with_more_power_behind_it_comes_first(): void
    {
        $weak = ['output_voltage' => '5 V', 'rated_current' => '12 A', 'contact_rating' => '20 A'];
        $strong = ['output_voltage' => '24 V', 'rated_current' => '60 A', 'contact_rating' => '60 A'];
        $file = Examples::file(
            [
                Examples::part('small', 'power_supply', $weak),
                Examples::part('large', 'power_supply', $strong),
                Examples::part('a', 'heater', ['rated_power' => '50 W', 'rated_voltage' => '5 V']),
                Examples::part('b', 'heater', ['rated_power' => '240 W', 'rated_voltage' => '24 V']),
                Examples::part('plug', 'contact_housing', ['contact_rating' => '6 A']),
            ],
            [
                'leads' => array_map(
                    static fn (string $from, string $to): array => [
                        'ref' => "W-{$to}",
                        'from' => "{$from}.out",
                        'to' => "{$to}.power",
                        'route' => 'fixed',
                        'ends' => [['termination' => 'ferrule'], ['contact' => 'plug', 'contacts_per_pole' => 1]],
                    ],
                    ['small', 'large'],
                    ['a', 'b'],
                ),
            ],
        );
        $burning = array_values(
            array_filter(
                array_map(static fn (Cause $c): string => $c->findings[0]->key(), Causes::of(self::inspect($file))),
                static fn (string $key): bool => str_starts_with($key, 'E02/'),
            ),
        );

        self::assertSame(['E02/W-b', 'E02/W-a'], $burning);
    }

    public function test_what_only_a_made_machine_can_tell_is_told_later(): void
    {
        $at = static fn (?string $stage, array $need = []): Inspection => Rules::inspector()->inspect(
            BuildFile::build(
                Examples::file(
                    [
                        [
                            Examples::part('screw', 'drive_screw', ['kind' => 'ball screw', 'backlash' => '10 µm'])[0],
                            $need + Examples::part('screw', 'drive_screw', [])[1],
                        ],
                    ],
                    [
                        'magpie' => 2,
                        'build' => array_filter(['name' => 'B', 'kind' => 'k', 'currency' => 'EUR', 'stage' => $stage]),
                        'brief' => ['accuracy' => '0.1 mm'],
                        'axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['by' => 'screw']]],
                    ],
                ),
            ),
        );
        $later = static fn (Inspection $i): bool => in_array(
            'M16/x',
            array_map(static fn ($f): string => $f->key(), $i->later()),
            true,
        );

        self::assertTrue($later($at('planned')));
        self::assertTrue($later($at('bought')));
        self::assertFalse($later($at('made')));
        self::assertFalse($later($at(null)), 'Where nobody says how far it is, all is asked.');
        // The screw is in its place before the rest is.
        self::assertFalse($later($at('planned', ['stage' => 'made'])));
        self::assertSame(
            2,
            $at('made')->tally()['unproven'] - $at('planned')->tally()['unproven'],
            'Play and preload.',
        );
    }

    public function test_an_accepted_finding_is_counted_apart_until_what_it_rests_on_changes(): void
    {
        $file = ContactLoad::bedOn(1);
        $before = self::inspect($file);
        $finding = array_column(array_map(static fn ($f): array => [$f->key(), $f], $before->findings), 1, 0)['E02/W1'];
        $accepted = [
            'ref' => 'A-1',
            'finding' => 'E02/W1',
            'why' => 'Runs for a minute a week, and is watched.',
            'who' => 'Isla',
            'of' => $finding->digest(),
            'until' => '2027-01-01',
        ];
        $after = self::inspect($file + ['accepted' => [$accepted]]);

        self::assertSame($before->tally()['danger'] - 1, $after->tally()['danger']);
        self::assertArrayHasKey('E02/W1', $after->accepted);
        self::assertNotContains('E02/W1', array_merge(...array_map(self::keys(...), Causes::of($after))));
        self::assertStringContainsString(
            'E02/W1 accepted by Isla, until 2027-01-01: Runs for a minute',
            InspectionReport::text($after),
        );
        self::assertSame('E02/W1', InspectionReport::data($after)['accepted'][0]['finding'] ?? null);
        self::assertArrayNotHasKey('E02/W1', $after->on('2027-01-01')->accepted, 'Its day is over.');
        self::assertArrayHasKey('E02/W1', $after->on('2026-12-31')->accepted);

        $file['parts'][1]['specs']['rated_power']['value'] = '300 W';
        $changed = self::inspect($file + ['accepted' => [$accepted]]);
        self::assertSame([], $changed->accepted, 'It carries more than was accepted.');
        self::assertSame($before->tally()['danger'], $changed->tally()['danger']);

        $this->expectException(CannotReadBuildFile::class);
        $this->expectExceptionMessage('too short for a reason');
        self::inspect($file + ['accepted' => [['why' => 'ok'] + $accepted]]);
    }
}
