<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Programs;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Workpiece;
use Magpie\Core\Programs\Caps;
use Magpie\Core\Programs\JobCheck;
use Magpie\Core\Programs\ProgramReader;
use Magpie\Core\Programs\StartList;
use Magpie\Core\Programs\Stock;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Programs in the words of ISO 6983-1 (from memory), and what a machine makes of them. */
final class ProgramTest extends TestCase
{
    private static function read(string $program, ?Caps $caps = null): ProgramReader
    {
        return ProgramReader::read(explode("\n", $program), $caps);
    }

    /**
     * @return list<string> verdict and what is said
     */
    private static function said(string $program, ?Caps $caps = null): array
    {
        return array_map(
            static fn ($t): string => "{$t->verdict->value} {$t->line}: {$t->says}",
            self::read($program, $caps)->troubles(),
        );
    }

    /** Its clamps are said by a seller alone, which proves no height to work in. */
    private static function linnet(string $clamps = 'measured', string $spindle = 'datasheet'): Build
    {
        $file = json_decode((string) file_get_contents(dirname(__DIR__, 3).'/demo/linnet.json'), true);
        foreach ($file['axes'] as &$axis) {
            foreach ($axis['takes'] as &$taker) {
                $taker['evidence'] = $taker['what'] === 'Clamps above the stock' ? $clamps : $taker['evidence'];
            }
        }
        foreach ($file['parts'] as &$part) {
            if ($part['family'] === 'spindle') {
                $part['specs']['top_speed']['evidence'] = $spindle;
            }
        }

        return BuildFile::read((string) json_encode($file));
    }

    /**
     * @param  array<string, float>  $origin
     * @return array<string, mixed>
     */
    private static function held(string $program, ?Build $build = null, array $origin = []): array
    {
        $build ??= self::linnet();
        $caps = Caps::of($build);

        return (new JobCheck(new Survey($build), self::read($program, $caps), $caps))->toArray($origin);
    }

    /**
     * @return iterable<string, array{string, array<string, array{float, float}>, float}>
     */
    public static function paths(): iterable
    {
        yield 'millimetres' => ["G21 G90\nG0 X0 Y0 Z0\nG1 X10 Y5 F600\nX-2", ['X' => [-2, 10], 'Y' => [0, 5]], 0];
        yield 'inches' => ["G20 G90\nG0 X0 Y0\nG1 X1 F10", ['X' => [0, 25.4]], 0];
        yield 'step by step' => ["G90 G0 X5 Y0\nG91\nG1 X1 F600\nX1\nX1", ['X' => [5, 8]], 0];
        yield 'words run together, blanks, comments' => [
            "N10G90G0X0Y0(start X99)\nN20 g1 x 12 f600 ; Y50\n/G1 X500",
            ['X' => [0, 12], 'Y' => [0, 0]],
            0,
        ];
        // Half a circle of radius 10 about (10, 0), over the top.
        yield 'arc to the left' => ["G0 X20 Y0\nG3 X0 Y0 I-10 J0 F600", ['X' => [0, 20], 'Y' => [0, 10]], M_PI * 10];
        yield 'arc to the right' => ["G0 X20 Y0\nG2 X0 Y0 I-10 J0 F600", ['X' => [0, 20], 'Y' => [-10, 0]], M_PI * 10];
        yield 'a whole circle' => ["G0 X20 Y0\nG2 X20 Y0 I-10 F600", ['X' => [0, 20], 'Y' => [-10, 10]], 2 * M_PI * 10];
        yield 'by its radius, the short way' => [
            "G0 X0 Y10\nG2 X10 Y0 R10 F600",
            ['X' => [0, 10], 'Y' => [0, 10]],
            M_PI * 5,
        ];
        yield 'by its radius, the long way' => [
            "G0 X0 Y10\nG2 X10 Y0 R-10 F600",
            ['X' => [0, 20], 'Y' => [0, 20]],
            M_PI * 15,
        ];
        yield 'a helix' => [
            "G0 X10 Y0 Z0\nG3 X10 Y0 Z-4 I-10 F600",
            ['X' => [-10, 10], 'Z' => [-4, 0]],
            hypot(2 * M_PI * 10, 4),
        ];
        yield 'in another plane' => [
            "G18 G0 X0 Z0 Y0\nG2 X10 Z0 I5 K0 F600",
            ['X' => [0, 10], 'Y' => [0, 0]],
            M_PI * 5,
        ];
        yield 'holes by steps, back to where each began' => [
            "G0 X0 Y0 Z5\nG91 G81 X10 Z-4 R-3 L3 F100\nX10\nG80",
            ['X' => [0, 40], 'Z' => [-2, 5]],
            0,
        ];
        yield 'holes by steps, each from the height of the last' => [
            "G0 X0 Y0 Z5\nG99 G91 G81 X10 Z-4 R-3 L2 F100\nG80",
            ['X' => [0, 20], 'Z' => [-2, 5]],
            0,
        ];
        yield 'limits of a printer are no place' => [
            "M201 X9000 Y9000 Z500\nM92 X80 Y80\nG28 X Y\nG0 X10 Y0\nG1 X60 F1200\nG11\nM117 LAYER 3 X900",
            ['X' => [10, 60], 'Y' => [0, 0]],
            0,
        ];
        yield 'a zero moved by its table is no move' => ["G0 X5 Y0\nG10 L20 P1 X300 Y0\nG0 X8", ['X' => [5, 8]], 0];
        yield 'what comes after its end' => ["G0 X5 Y0\nM30\nG0 X900", ['X' => [5, 5]], 0];
        yield 'a whole circle by one of its letters' => ["G0 X20 Y0\nG2 I-10 F600", ['X' => [0, 20]], 2 * M_PI * 10];
        yield 'holes' => ["G0 X0 Y0 Z5\nG81 X10 Y0 Z-3 R1 F100\nX20\nG80", ['X' => [0, 20], 'Z' => [-3, 5]], 0];
    }

    /**
     * @param  array<string, array{float, float}>  $bounds
     */
    #[DataProvider('paths')]
    public function test_bounds_and_lengths_of_paths(string $program, array $bounds, float $length): void
    {
        $read = self::read($program);
        foreach ($bounds as $axis => [$low, $high]) {
            self::assertEqualsWithDelta($low, $read->bounds[$axis][0], 1e-6, $axis);
            self::assertEqualsWithDelta($high, $read->bounds[$axis][1], 1e-6, $axis);
        }
        if ($length > 0) {
            self::assertEqualsWithDelta($length, $read->rapid + $read->cut, 0.002 * $length);
        }
    }

    /** By hand: a move takes its length over its speed, and speed over acceleration more; one too short to reach it, 2 √(d/a). */
    public function test_time_with_rise_and_fall_by_hand(): void
    {
        $caps = new Caps(['X' => 6000.0, 'Y' => 6000.0], ['X' => 500.0, 'Y' => 500.0]);
        $time = static fn (string $program): float => self::read($program, $caps)->times->seconds;
        self::assertEqualsWithDelta(100 / 20 + 20 / 500, $time("G90\nG0 X0\nG1 X100 F1200"), 1e-6);
        self::assertEqualsWithDelta(2 * sqrt(1 / 500), $time("G90\nG0 X0\nG1 X1 F6000"), 1e-6);
        // Straight on it does not stop; back it does.
        self::assertEqualsWithDelta(200 / 20 + 20 / 500, $time("G90\nG0 X0\nG1 X100 F1200\nX200"), 1e-6);
        self::assertEqualsWithDelta(2 * (100 / 20 + 20 / 500), $time("G90\nG0 X0\nG1 X100 F1200\nX0"), 1e-6);
        // Along a slant each axis gives its share: 45° is faster by √2 than one axis is.
        self::assertEqualsWithDelta(
            hypot(100, 100) / (100 * sqrt(2)) + (100 * sqrt(2)) / (500 * sqrt(2)),
            $time("G90\nG0 X0 Y0\nG0 X100 Y100"),
            1e-6,
        );
        self::assertEqualsWithDelta(2.5, $time("G4 P2.5\nG0 X0"), 1e-9);
        // A pause between them stops it, though both go the same way.
        self::assertEqualsWithDelta(
            2 * (100 / 20 + 20 / 500) + 1,
            $time("G90\nG0 X0\nG1 X100 F1200\nG4 P1\nX200"),
            1e-6,
        );
        // The tool is on for the cut and half a second before it, and not for the way back.
        $on = self::read("G90 G0 X0\nM3 S1\nG4 P500\nG1 X100 F1200\nM5\nG0 X0", $caps)->times->toolSeconds;
        self::assertEqualsWithDelta(0.5 + 100 / 20 + 20 / 500, $on, 1e-6);
        // Two minutes for a move, said as a half of one a minute, in inches too.
        self::assertEqualsWithDelta(120, self::read("G20 G90 G0 X0\nG93 G1 X4 F0.5")->times->seconds, 1e-6);
    }

    public function test_every_speed_the_spindle_is_told_while_it_turns_counts(): void
    {
        $told = static fn (string $program): ?array => self::read($program)->turns;
        self::assertSame([8000.0, 24000.0], $told("S100\nM3 S8000\nG0 X0\nS24000\nG1 X5 F100\nM5\nS30000\nM2"));
        self::assertSame([8000.0, 8000.0], $told("M3 S8000\nM106 S255\nM204 S500\nG4 S2\nG0 X0\nM5"));
    }

    /** Two spindles, and two motors' axes along one way, are held to what both can. */
    public function test_of_two_the_lesser_counts(): void
    {
        $file = json_decode((string) file_get_contents(dirname(__DIR__, 3).'/demo/linnet.json'), true);
        $spindle = array_values(array_filter($file['parts'], static fn (array $p): bool => $p['family'] === 'spindle'))[0];
        $of = static fn (?string $top): Caps => Caps::of(BuildFile::read((string) json_encode([
            'needs' => [...$file['needs'], ['ref' => 'second', 'role' => 'Second', 'family' => 'spindle', 'candidates' => ['second'], 'choice' => 'second']],
            'parts' => [
                ...$file['parts'],
                ['ref' => 'second', 'specs' => array_filter([
                    ...$spindle['specs'],
                    'top_speed' => $top === null ? null : ['value' => $top, 'evidence' => 'assumed'],
                    'lowest_speed' => ['value' => '5000 rpm', 'evidence' => 'datasheet'],
                ])] + $spindle,
            ],
            'axes' => [
                ...$file['axes'],
                ['ref' => 'x2', 'name' => 'X too', 'drive' => ['top_speed' => '50 mm/s']] + $file['axes'][0],
            ],
        ] + $file)));
        self::assertSame([5000.0, 6000.0], [$of('6000 rpm')->slowest, $of('6000 rpm')->fastest]);
        self::assertSame(Evidence::Assumed, $of('6000 rpm')->rests);
        self::assertNull($of(null)->fastest);
        self::assertEqualsWithDelta(3000, $of('6000 rpm')->speed['X'], 1e-9);
    }

    /**
     * @return iterable<string, array{string, bool, string}>
     */
    public static function faults(): iterable
    {
        yield 'no speed' => [
            "M3\nG0 X0\nG1 X1 F100\nM5\nM2",
            false,
            'fails 1: The spindle is switched on with no speed',
        ];
        yield 'backwards' => ["M4 S8000\nG0 X0\nM5\nM2", false, 'fails 1: It turns the spindle backwards'];
        yield 'cuts with it off' => ["G0 X0 Z5\nG1 Z-1 F100\nG1 X5\nM2", false, 'fails 2: It cuts below nought'];
        yield 'left on' => ["S8000 M3\nG0 X0\nG1 X1 F100", false, 'danger 3: It ends with the tool on'];
        yield 'no feed' => ["S8000 M3\nG0 X0\nG1 X1\nM5\nM2", false, 'fails 3: It feeds before'];
        yield 'an arc that does not close' => [
            "G0 X0 Y0\nG2 X10 Y0 I3 F100\nM2",
            false,
            'fails 2: An arc whose centre',
        ];
        yield 'nothing in it' => ["hello\nworld", false, 'fails 2: Nothing moves'];
        yield 'torch on in travel' => [
            "G38.2 Z-5 F100\nM3 S1\nG0 X50\nM5\nM2",
            true,
            'danger 3: The torch is on while it travels',
        ];
        yield 'no probe' => ["M3 S1\nG1 X5 F900\nM5\nM2", true, 'fails 1: The torch pierces without a probe'];
        yield 'second pierce without one' => [
            "G38.2 Z-5 F100\nM3 S1\nG1 X5 F900\nM5\nM3\nG1 X9\nM5\nM2",
            true,
            'fails 5: The torch pierces',
        ];
        yield 'no power word' => [
            "G38.2 Z-5 F100\nM3\nG1 X5 F900\nM5\nM2",
            true,
            'fails 2: The torch is switched on with no power word',
        ];
        yield 'told to turn at nothing' => [
            "M3 S0\nG0 X0 Z5\nG1 Z-1 F100\nM5\nM2",
            false,
            'fails 3: It cuts below nought with the spindle off',
        ];
        yield 'a pause is no speed' => ["G4 S2\nM3\nG0 X0\nM5\nM2", false, 'fails 2: The spindle is switched on with no'];
        yield 'a tool changed as it turns' => ["M3 S8000\nG0 X0\nM6 T2\nM2", false, 'tight 3: It changes the tool'];
        yield 'not switched on again' => [
            "M3 S8000\nM5 M6 T2\nG0 X0 Z5\nG1 Z-1 F100\nM2",
            false,
            'fails 4: It cuts below nought',
        ];
        yield 'changed as it turned, and not switched on again' => [
            "M3 S8000\nG0 X0 Z5\nM6 T2\nG1 Z-1 F100\nM2",
            false,
            'fails 4: It cuts below nought',
        ];
        yield 'another program' => ["G0 X0\nM98 P100\nM2", false, 'unproven 2: It calls what stands elsewhere (M98)'];
        yield 'its own coordinates' => ["G0 X0\nG53 G0 X-40\nM2", false, 'unproven 2: It moves in the machine’s own'];
        yield 'zero moved by its table' => ["G0 X0\nG10 L2 P1 X5\nM2", false, 'unproven 2: It shifts its own zero (G10)'];
        yield 'a feed for each turn' => ["G95 F0.1\nG1 X1\nM2", false, 'unproven 1: G95 is not known'];
        yield 'the torch once more without a probe, told again' => ["G38.2 Z-5 F100\nM3 S1\nM4\nM5\nM2", true, 'fails 3: The torch pierces'];
        yield 'cutter compensation to the left' => ["G41 D1\nG0 X0\nM2", false, 'unproven 1: Cutter compensation'];
        yield 'and to the right' => ["G42 D1\nG0 X0\nM2", false, 'unproven 1: Cutter compensation'];
        foreach (['G52', 'G68', 'G50', 'G51', 'G92.3'] as $code) {
            yield "{$code} moves what it counts from" => ["G0 X0\n{$code} X1 R5\nM2", false, "unproven 2: It shifts its own zero ({$code})"];
        }
        yield 'a place with no motion in force' => ["G0 X0\nG80\nX5\nM2", false, 'fails 3: It names a place'];
        yield 'a feed of nothing' => ["G0 X0\nG1 X1 F0\nM2", false, 'fails 2: A feed of nothing'];
        yield 'on at its end' => ["M3 S8000\nG0 X0\nM30", false, 'tight 3: It ends with the tool still on; M30'];
        yield 'a drill with the spindle off' => ["G0 X0 Z5\nG81 X1 Z-2 R1 F100\nM2", false, 'fails 2: It cuts below nought'];
        yield 'a drill without its depth' => ["M3 S9\nG0 X0 Z5\nG81 X1 R1 F100\nM5\nM2", false, 'fails 3: A drilling cycle without'];
        yield 'a drill by steps from nobody knows where' => ["M3 S9\nG0 X0\nG91 G81 X1 Z-2 R1 F100\nM5\nM2", false, 'fails 3: A drilling'];
        yield 'a line too long' => ['G0 X0 '.str_repeat(' ', 4100)."\nM2", false, 'unproven 1: A line is longer'];
        yield 'a line that could not be read' => ["G0 X0\nG1 X?\nM2", false, 'unproven 2: A line could not be read: “G1 X?”'];
        yield 'parameters' => ["#1=5\nG0 X#1\nG1 X1 F100\nM2", false, 'unproven 1: It works with parameters'];
        yield 'words nobody knows' => ["G0 X0\nG1 X1 F100\nG999\nM2", false, 'unproven 3: G999'];
    }

    #[DataProvider('faults')]
    public function test_faults_are_found_at_their_line(string $program, bool $torch, string $says): void
    {
        $said = self::said($program, new Caps(torch: $torch, tool: 'the spindle'));
        self::assertStringContainsString($says, implode("\n", $said));
    }

    public function test_a_sound_program_raises_nothing(): void
    {
        $mill =
            "%\nG21 G90 G17 G40\nS8000 M3\nG0 X0 Y0 Z5\nG1 Z-1 F300\nX100 F1200\nG3 X100 Y20 J10\nG1 X0\nG0 Z5\nM5\nM30\n%";
        self::assertSame([], self::said($mill, new Caps(tool: 'the spindle')));
        $held = self::held($mill);
        self::assertSame('holds', $held['verdict'], (string) json_encode($held['troubles']));
        self::assertSame(
            ["That Z can travel 36 mm rests on clamps above the stock (seller's listing)."],
            array_column(self::held($mill, self::linnet('listing'))['troubles'], 'says'),
        );
        self::assertSame(
            ['How fast Spindle may turn rests on assumed.'],
            array_column(self::held($mill, self::linnet(spindle: 'assumed'))['troubles'], 'says'),
        );
        // A spindle that starts slowly, a tool that is changed, holes, and home in the machine's own coordinates.
        self::assertSame(
            [],
            self::said(
                "G20 G90 G94 G17 G40 G49 G80 G92.1 G61.1\nG53 G0 Z0\nT1 M6\nM3 S0\nS9000\nG0 X0 Y0 Z.2\nG83 X1 Y1 Z-.2 R.1 Q.05 F5\nG80\n".
                    "M5\nT2 M6\nS9000 M3\nG1 Z-.1 F20\nX2\nG0 Z.2\nG91 G28 Z0\nM5\nM30",
                new Caps(tool: 'the spindle'),
            ),
        );
        // What a printer is sent before and between.
        self::assertSame(
            [],
            self::said(
                "M862.3 P \"OF ONE\"\nM201 X9000\nM203 X200 Y200\nM205 X8 E5\nM140 S60\nM104 S215\nG28 W\nG29\nG90 M83\nG92 E0\n".
                    "G1 X10 Y10 Z.2 F3000\nG1 X60 E4\nG10\nG0 X5\nG11\nM73 P50 R3\nM117 LAYER 2\nM106 S255\nN90 G1 X9 E2*71\nM84 X Y E",
            ),
        );
        $torch =
            "G21 G90\nS1\nG0 X10 Y10\nG38.2 Z-20 F300\nG0 Z3.8\nM3\nG4 P0.5\nG1 Z1.5 F1000\nX60 F2000\nM5\nG0 X0\nM30";
        self::assertSame([], self::said($torch, new Caps(torch: true)));
    }

    public function test_a_program_is_held_against_travel_zero_turns_and_feeds(): void
    {
        $long = "G21 G90\nS8000 M3\nG0 X0 Y0 Z5\nG1 Z-1 F300\nG1 Y700 F1200\nG0 Z5\nM5\nM30";
        $held = self::held($long);
        self::assertSame('fails', $held['verdict']);
        self::assertStringContainsString(
            'Y goes 700 mm, and can travel 640 mm: 60 mm too far',
            $held['troubles'][0]['says'],
        );
        $short = str_replace('Y700', 'Y600', $long);
        self::assertSame('holds', self::held($short)['verdict']);
        self::assertStringContainsString(
            'from 100 mm to 700 mm',
            self::held($short, null, ['Y' => 100.0])['troubles'][0]['says'],
        );
        $says = static fn (string $from, string $to): string => implode(
            ' ',
            array_column(self::held(str_replace($from, $to, $short))['troubles'], 'says'),
        );
        self::assertStringContainsString('It asks for 30000 rpm', $says('S8000', 'S30000'));
        self::assertStringContainsString('stalls or overheats', $says('S8000', 'S200'));
        self::assertStringContainsString('Y is fed at 50000 mm/min', $says('F1200', 'F50000'));
        self::assertStringContainsString('this machine has no heater there', $says('M30', "M104 S200\nM30"));
    }

    /**
     * @return iterable<string, array{string, Caps, string}>
     */
    public static function turns(): iterable
    {
        $caps = static fn (?float $slow, ?float $fast, Evidence $rests = Evidence::Datasheet): Caps => new Caps([], [], false, $slow, $fast, 'the spindle', $rests);
        yield 'at its fastest' => ['S24000', $caps(6000, 24000), 'holds'];
        yield 'a turn faster' => ['S24001', $caps(6000, 24000), 'fails'];
        yield 'at its slowest' => ['S6000', $caps(6000, 24000), 'holds'];
        yield 'a turn slower' => ['S5999', $caps(6000, 24000), 'fails'];
        yield 'slow enough for what says no least' => ['S1', $caps(null, 24000), 'holds'];
        yield 'nobody says how fast' => ['S1000', $caps(null, null), 'unproven'];
        yield 'a seller says how fast' => ['S9000', $caps(6000, 24000, Evidence::Listing), 'unproven'];
        yield 'too fast, whoever says so' => ['S24001', $caps(6000, 24000, Evidence::Assumed), 'fails'];
    }

    #[DataProvider('turns')]
    public function test_turns_are_held_to_what_the_spindle_can(string $speed, Caps $caps, string $verdict): void
    {
        $read = self::read("G21 G90\n{$speed} M3\nG0 X0\nM5\nM2", $caps);
        $held = (new JobCheck(new Survey(self::linnet()), $read, $caps))->toArray();
        self::assertSame($verdict, $held['verdict'], (string) json_encode($held['troubles']));
    }

    /**
     * @return iterable<string, array{array<string, string|bool>|null, string, string, string}>
     */
    public static function heaters(): iterable
    {
        $bed = ['place' => 'bed'];
        yield 'as hot as its material stands' => [$bed + ['material_limit' => '120 °C'], 'M140 S120', 'bed', ''];
        yield 'hotter' => [$bed + ['material_limit' => '120 °C'], 'M190 S121', 'bed', 'danger It heats the bed to 121 °C; mat stands 120 °C.'];
        yield 'as hot as it was proven for' => [$bed + ['target' => '100 °C'], 'M140 S100', 'bed', ''];
        yield 'hotter than that' => [$bed + ['target' => '100 °C'], 'M190 R101', 'bed', 'tight It heats the bed to 101 °C, hotter than the 100 °C this'];
        yield 'nobody says what it stands' => [$bed, 'M140 S60', 'bed', 'unproven What mat stands is not known; it is set to 60 °C.'];
        yield 'no heater there' => [$bed, 'M141 S40', 'chamber', 'fails It heats the chamber, and this machine has no heater there.'];
        yield 'none there, and it is put off' => [$bed, 'M191 S0', 'chamber', ''];
        yield 'the hottest it is set to counts' => [
            ['place' => 'hot end', 'material_limit' => '240 °C'],
            "M104 S250\nM109 S200",
            'nozzle',
            'danger It heats the nozzle to 250 °C',
        ];
    }

    /**
     * @param  array<string, string|bool>  $sheet
     */
    #[DataProvider('heaters')]
    public function test_heat_is_held_to_what_is_fitted_there(array $sheet, string $line, string $what, string $says): void
    {
        $held = self::held("{$line}\nG0 X0\nM2", self::built([Examples::part('mat', 'heater', $sheet)]));
        self::assertArrayHasKey($what, $held['heat']);
        // Beside that nobody knows how far it can travel.
        $heat = array_filter($held['troubles'], static fn (array $t): bool => ! str_contains($t['says'], 'can travel'));
        $said = implode('; ', array_map(static fn (array $t): string => "{$t['verdict']} {$t['says']}", $heat));
        $says === '' ? self::assertSame('', $said) : self::assertStringStartsWith($says, $said);
    }

    /** The worst first, and of one kind the first line; where its zero lies, it may end just at its ends. */
    public function test_what_is_wrong_stands_in_order_and_ends_are_ends(): void
    {
        $held = self::held("G21 G90\nG4 S1\nG777\nS8000 M3\nG0 X400 Y0 Z5\nX0\nG778\nM5\nM2");
        self::assertSame(
            [['fails', null], ['unproven', 3], ['unproven', 7]],
            array_map(static fn (array $t): array => [$t['verdict'], $t['line']], $held['troubles']),
        );
        self::assertSame(310.0, array_column($held['axes'], 'travel', 'axis')['X']);
        self::assertSame(-90.0, array_column($held['axes'], 'left', 'axis')['X']);
        self::assertSame([1.0, 0.0], [$held['seconds'] > 1 ? 1.0 : 0.0, $held['tool_seconds'] < 0 ? 1.0 : 0.0]);
        $across = "G21 G90\nS8000 M3\nG0 X0 Y0 Z5\nG0 X22\nM5\nM2";
        self::assertSame('holds', self::held($across, null, ['X' => 288.0])['verdict']);
        self::assertSame('fails', self::held($across, null, ['X' => 288.01])['verdict']);
        self::assertSame('holds', self::held(str_replace('X22', 'X-22', $across), null, ['X' => 22.0])['verdict']);
        self::assertSame('fails', self::held(str_replace('X22', 'X-22', $across), null, ['X' => 21.99])['verdict']);
        // A feed just at what it reaches is as it was meant.
        $fed = "G21 G90\nS8000 M3\nG0 X0 Y0 Z5\nG1 X100 F18000\nM5\nM2";
        self::assertSame('holds', self::held($fed)['verdict'], (string) json_encode(self::held($fed)['axes']));
        self::assertSame('tight', self::held(str_replace('F18000', 'F18010', $fed))['verdict']);
        self::assertGreaterThan(0.0, self::held($fed)['energy']);
    }

    /** 12 mm of stock: right through and half a millimetre into the board is usual, two are not. */
    public function test_what_is_cut_is_held_against_the_piece_it_is_cut_from(): void
    {
        $piece = static fn (?string $width = '90 mm'): Workpiece => new Workpiece(
            'p',
            'the blank',
            Quantity::parse('300 mm', Dimension::Length),
            $width === null ? null : Quantity::parse($width, Dimension::Length),
            Quantity::parse('12 mm', Dimension::Length),
        );
        $cut = static fn (float $low, bool $top = true, ?string $width = '90 mm'): array => (new Stock(
            $piece($width),
            $top,
        ))->against([
            'X' => [-10.0, 270.0],
            'Y' => [0.0, 80.0],
            'Z' => [$low, 0.0],
        ]);
        [$rows, $troubles] = $cut(-12.0);
        self::assertSame([20.0, 10.0, 0.0], array_column($rows, 'left'));
        self::assertSame([], $troubles);
        self::assertSame([Verdict::Tight], array_column($cut(-12.5)[1], 'verdict'));
        self::assertSame([Verdict::Fails], array_column($cut(-14.0)[1], 'verdict'));
        self::assertSame([12.0, []], [$cut(0.0, false)[0][2]['cut'], $cut(0.0, false)[1]]);
        self::assertSame([Verdict::Fails], array_column($cut(-2.0, false)[1], 'verdict'));
        self::assertStringContainsString('Along Y it cuts 10.0 mm beyond', $cut(-1.0, true, '70 mm')[1][0]->says);
        self::assertSame([Verdict::Unproven], array_column($cut(-1.0, true, null)[1], 'verdict'));
        self::assertSame([280.0, 80.0, 12.0], array_column($rows, 'cut'));
        self::assertSame([300.0, 90.0, 12.0], array_column($rows, 'size'));
        self::assertSame([Verdict::Tight], array_column($cut(-13.0)[1], 'verdict'));
        self::assertSame([Verdict::Tight], array_column($cut(-1.0, true, '70 mm')[1], 'verdict'));
        self::assertSame([], $cut(-1.0, true, '80 mm')[1]);
        self::assertSame([0.0, 12.0], [$cut(2.0)[0][2]['cut'], $cut(2.0)[0][2]['left']], 'Above it nothing is cut.');
        // What is not cut at all is held against nothing.
        self::assertSame([[], []], (new Stock($piece()))->against([]));
    }

    public function test_a_printer_is_held_against_what_its_heaters_stand(): void
    {
        $dunlin = BuildFile::read((string) file_get_contents(dirname(__DIR__, 3).'/demo/dunlin.json'));
        $held = self::held("G21 G90 M82\nM140 S110\nM104 S330\nG0 X10 Y10 Z0.2\nG1 X50 E5 F1200\nM104 S0\nM2", $dunlin);
        self::assertSame(330.0, $held['heat']['nozzle']);
        self::assertNotContains('holds', array_column($held['troubles'], 'verdict'));
        self::assertStringContainsString('nozzle to 330', implode(' ', array_column($held['troubles'], 'says')));
        self::assertEqualsWithDelta(5.0, $held['laid'], 1e-9);
        self::assertEqualsWithDelta(40.0, $held['cut'], 1e-9);
    }

    public function test_what_the_state_of_a_machine_forbids_before_a_job(): void
    {
        $list = StartList::of(self::linnet());
        self::assertStringContainsString('Dust drawn off', implode(' ', $list['blocks']));
        self::assertStringContainsString('Collet', implode(' ', $list['looks']));
        $dunlin = BuildFile::read((string) file_get_contents(dirname(__DIR__, 3).'/demo/dunlin.json'));
        self::assertStringContainsString('Open danger', implode(' ', StartList::of($dunlin)['blocks']));
        self::assertStringContainsString('open its top', implode(' ', StartList::of($dunlin, 'PLA, white')['blocks']));
        self::assertStringNotContainsString('open its top', implode(' ', StartList::of($dunlin, 'ASA')['blocks']));
        self::assertStringContainsString('3 dangers are open', implode(' ', StartList::of($dunlin, '', 3)['blocks']));
    }

    /**
     * @return iterable<string, array{list<array{array<string, mixed>, array<string, mixed>}>, array<string, mixed>, string, string, bool}>
     */
    public static function starts(): iterable
    {
        $torch = [Examples::part('arc', 'arc_source', [])];
        $spindle = [Examples::part('it', 'spindle', [])];
        $nozzle = [Examples::part('it', 'heater', ['place' => 'hot end'])];
        $warm = static fn (string $air, string $kind = 'enclosure'): array => [
            'zones' => [['ref' => 'z', 'name' => 'the hood', 'kind' => $kind, 'temperature' => $air, 'evidence' => 'measured']],
        ];
        yield 'wood under a torch' => [$torch, [], 'birch ply', 'birch ply under a torch burns.', true];
        yield 'steel under a torch' => [$torch, [], 'mild steel', 'under a torch burns', false];
        yield 'wood under a cutter' => [$spindle, [], 'birch ply', 'under a torch burns', false];
        yield 'what softens early, in the warm' => [$nozzle, $warm('41 °C'), 'PLA, white', 'PLA, white softens at about 60 °C, and the hood gets 41 °C warm', true];
        yield 'in a chamber too' => [$nozzle, $warm('55 °C', 'chamber'), 'TPU', 'open its top and door first', true];
        yield 'not so warm' => [$nozzle, $warm('40 °C'), 'PLA', 'softens', false];
        yield 'in a cabinet nothing is printed' => [$nozzle, $warm('55 °C', 'cabinet'), 'PLA', 'softens', false];
        yield 'what does not soften early' => [$nozzle, $warm('55 °C'), 'ASA', 'softens', false];
        yield 'cut, not laid' => [$spindle, $warm('55 °C'), 'PLA', 'softens', false];
        yield 'no smoke alarm' => [$nozzle, [], '', 'not ticked as at hand', true];
        yield 'one is at hand' => [$nozzle, ['site' => ['ready' => ['smoke_alarm' => true]]], '', 'not ticked as at hand', false];
        yield 'a plotter needs none' => [[Examples::part('it', 'stepper_motor', [])], [], '', 'not ticked as at hand', false];
    }

    /**
     * @param  list<array{array<string, mixed>, array<string, mixed>}>  $parts
     * @param  array<string, mixed>  $more
     */
    #[DataProvider('starts')]
    public function test_what_forbids_a_start(array $parts, array $more, string $material, string $says, bool $forbids): void
    {
        $blocks = StartList::of(self::built($parts, $more), $material)['blocks'];
        self::assertSame($forbids, str_contains(implode(' ', $blocks), $says), implode(' ', $blocks));
    }

    public function test_what_is_looked_at_is_what_the_machine_has(): void
    {
        $looks = static fn (array ...$parts): string => implode(' ', StartList::of(self::built($parts))['looks']);
        $pen = $looks(Examples::part('it', 'stepper_motor', []));
        self::assertStringContainsString('Sheet flat and held', $pen);
        foreach (['Collet', 'Consumables', 'Nozzle'] as $other) {
            self::assertStringNotContainsString($other, $pen);
        }
        $both = $looks(Examples::part('it', 'spindle', []), Examples::part('arc', 'arc_source', []));
        self::assertStringContainsString('Collet', $both);
        self::assertStringContainsString('Consumables', $both);
        self::assertStringNotContainsString('Sheet flat', $both);
        self::assertStringContainsString('Nozzle wiped', $looks(Examples::part('it', 'heater', ['place' => 'hot end'])));
        $bed = $looks(Examples::part('it', 'heater', ['place' => 'bed']));
        self::assertStringNotContainsString('Nozzle wiped', $bed);
        self::assertSame(['1 danger is open under Fit: not to be powered.'], array_slice(StartList::of(self::built([]), '', 1)['blocks'], 0, 1));
    }

    /**
     * @param  list<array{array<string, mixed>, array<string, mixed>}>  $parts
     * @param  array<string, mixed>  $more
     */
    private static function built(array $parts, array $more = []): Build
    {
        return BuildFile::build(Examples::file($parts, $more + [
            'magpie' => BuildFile::VERSION,
            'build' => ['name' => 'A', 'kind' => 'it', 'currency' => 'GBP'],
        ]));
    }

    /** Whatever is fed in: it ends, it keeps little, and it never says that it holds where lines could not be read. */
    public function test_junk_is_read_to_its_end_and_never_holds(): void
    {
        mt_srand(8);
        $words = [
            'G0',
            'G1',
            'G2',
            'G3',
            'G90',
            'G91',
            'M3',
            'M5',
            'X',
            'Y1',
            'Z-2.5',
            'I',
            'J.5',
            'R0',
            'F0',
            'F900',
            'S1',
            '(',
            ')',
            ';',
            '%',
            'é',
            '#',
            'G92 X1',
            "\0",
            'E1',
            'G28',
            '..',
            '--',
        ];
        for ($turn = 0; $turn < 400; $turn++) {
            $text = '';
            for ($i = mt_rand(1, 40); $i > 0; $i--) {
                $text .= $words[mt_rand(0, count($words) - 1)].(mt_rand(0, 3) === 0 ? "\n" : ' ');
            }
            $read = self::read($text, new Caps(['X' => 1000.0], ['X' => 100.0], mt_rand(0, 1) === 1, tool: 'it'));
            self::assertTrue(is_finite($read->times->seconds) && $read->times->seconds >= 0, $text);
            foreach ($read->bounds as [$low, $high]) {
                self::assertTrue(is_finite($low) && is_finite($high) && $low <= $high);
            }
        }
        self::assertNotSame('holds', self::held("G0 X0 Y0\nG1 X@!5 F100\nM2")['verdict']);
    }
}
