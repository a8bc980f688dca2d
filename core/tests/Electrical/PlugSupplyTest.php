<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\EnergyUse;
use Magpie\Core\Electrical\Stops;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** A supply with a plug of its own: nothing on its mains side to wire, nothing that switches it, and what it takes at the wall counts. */
final class PlugSupplyTest extends TestCase
{
    /**
     * 60 W at 24 V, from a plug that loses a fifth of it.
     *
     * @param  array<string, string>  $sheet
     * @param  array<string, mixed>  $more
     */
    private static function machine(array $sheet = [], array $more = []): SampleBuild
    {
        return new SampleBuild(Examples::file(
            [
                Examples::part('adapter', 'plug_supply', $sheet + [
                    'output_voltage' => '24 V',
                    'rated_current' => '5 A',
                    'input_voltage' => '100 V to 240 V',
                    'efficiency' => '80 %',
                    'power_factor' => '0.5',
                ]),
                Examples::part('bed', 'heater', ['rated_power' => '60 W', 'rated_voltage' => '24 V', 'place' => 'bed']),
            ],
            $more + [
                'site' => ['mains_voltage' => '230 V', 'outlet' => '13 A', 'other_load' => '0 A', 'ambient' => '20 °C'],
                'leads' => [
                    ['ref' => 'W1', 'from' => 'adapter.out', 'to' => 'bed.power', 'length' => '0.01 m', 'conductor' => ['size' => '2.5 mm²', 'evidence' => 'datasheet']],
                ],
            ],
        ));
    }

    /**
     * @return iterable<string, array{string, string|null, Verdict}> label, mains
     */
    public static function labels(): iterable
    {
        yield 'for the world' => ['100 V to 240 V', '230 V', Verdict::Holds];
        yield 'for America, in Europe' => ['100 V to 120 V', '230 V', Verdict::Danger];
        yield 'for Europe, in America' => ['220 V to 240 V', '120 V', Verdict::Fails];
        yield 'just at its end' => ['100 V to 230 V', '230 V', Verdict::Tight];
        yield 'a hair beyond it' => ['100 V to 229 V', '230 V', Verdict::Danger];
        // One voltage alone stands a sixth either way: 230 V is 192 to 268 V, 120 V is 100 to 140 V.
        yield 'one voltage, of the same mains' => ['230 V', '240 V', Verdict::Holds];
        yield 'one voltage, of the other' => ['120 V', '230 V', Verdict::Danger];
        yield 'one voltage, too low' => ['230 V', '191 V', Verdict::Fails];
        yield 'nobody says what the mains are' => ['100 V to 240 V', null, Verdict::Unproven];
    }

    #[DataProvider('labels')]
    public function test_it_is_made_for_the_mains_or_not(string $label, ?string $mains, Verdict $verdict): void
    {
        $site = $mains === null ? [] : ['mains_voltage' => $mains];
        $finding = self::machine(['input_voltage' => $label], ['site' => $site])->finding('E05-plug/adapter');
        self::assertSame($verdict, $finding->verdict, $finding->headline);
    }

    public function test_nothing_is_asked_of_its_mains_side(): void
    {
        $keys = array_map(
            static fn (Finding $f): string => $f->key(),
            Rules::inspector()->inspect(self::machine()->build)->findings,
        );
        self::assertContains('E05/adapter.out', $keys);
        foreach (['E05-kit', 'E14', 'E14-hands', 'E06/adapter', 'E13/adapter.mains'] as $none) {
            self::assertSame([], array_filter($keys, static fn (string $k): bool => str_starts_with($k, "{$none}/")), $none);
        }
    }

    /** 60 W / (0.8 × 0.5 × 230 V) is 0.652 A at the wall. */
    public function test_what_it_takes_at_the_wall_counts_on_the_circuit(): void
    {
        $finding = self::machine()->finding('E15/everything-on');
        self::assertSame(Verdict::Holds, $finding->verdict, $finding->headline);
        self::assertStringContainsString("0.652\u{a0}A on a 13\u{a0}A outlet", $finding->headline);
        $small = self::machine([], ['site' => ['mains_voltage' => '230 V', 'outlet' => '0.6 A', 'other_load' => '0 A']]);
        self::assertSame(Verdict::Fails, $small->finding('E15/everything-on')->verdict);
        $none = Examples::file([Examples::part('adapter', 'plug_supply', ['output_voltage' => '24 V'])], ['site' => ['mains_voltage' => '230 V', 'outlet' => '13 A', 'other_load' => '0 A']]);
        $missing = (new SampleBuild($none))->finding('E15/everything-on');
        self::assertSame(Verdict::Unproven, $missing->verdict);
        self::assertStringContainsString('efficiency at full load of adapter', implode('; ', $missing->missing));
    }

    /** 60 W out are 75 W in, all the while; a heater that works half of its time takes half of that. */
    public function test_its_losses_are_paid_for(): void
    {
        $build = self::machine()->build;
        $circuits = Circuits::of(new Survey($build));
        $use = EnergyUse::of($circuits, $circuits->scenarios()[0]);
        self::assertSame([], $use->missing);
        self::assertEqualsWithDelta(75.0, $use->average->in('W'), 0.2);
    }

    /** A stop of the machine's own mains leaves what hangs on another plug live. */
    public function test_no_stop_of_the_machine_reaches_it(): void
    {
        $file = Examples::file(
            [
                Examples::part('inlet', 'mains_inlet', ['contact_rating' => '10 A']),
                Examples::part('stop', 'stop_button', ['rated_current' => '10 A']),
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '5 A', 'input_voltage' => '100 V to 240 V']),
                Examples::part('chamber', 'heater', ['rated_power' => '60 W', 'rated_voltage' => '24 V']),
                Examples::part('adapter', 'plug_supply', ['output_voltage' => '24 V', 'rated_current' => '5 A']),
                Examples::part('bed', 'heater', ['rated_power' => '60 W', 'rated_voltage' => '24 V']),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'inlet.out', 'to' => 'stop.in'],
                    ['ref' => 'W2', 'from' => 'stop.out', 'to' => 'psu.mains'],
                    ['ref' => 'W3', 'from' => 'psu.out', 'to' => 'chamber.power'],
                    ['ref' => 'W4', 'from' => 'adapter.out', 'to' => 'bed.power'],
                ],
            ],
        );
        $state = Stops::of(new Survey((new SampleBuild($file))->build))->state(['stop']);
        self::assertSame([Stops::OFF, Stops::LIVE], [$state['chamber'], $state['bed']]);
    }
}
