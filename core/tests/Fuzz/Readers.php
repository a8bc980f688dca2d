<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Fuzz;

use Closure;
use ErrorException;
use Magpie\Core\Families\Catalogue;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\PartsList\Mapping;
use Magpie\Core\PartsList\RowReader;
use Magpie\Core\Printing\CannotReadMesh;
use Magpie\Core\Printing\Mesh;
use Magpie\Core\Printing\MeshReader;
use Magpie\Core\Programs\ProgramReader;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Quantity\Range;
use Magpie\Core\Simulation\Wav;
use Magpie\Core\Tuning\CannotTune;
use Magpie\Core\Tuning\HeaterLog;
use Magpie\Core\Tuning\Log;
use Magpie\Core\Tuning\Loop;
use Magpie\Core\Tuning\Note;
use Magpie\Core\Tuning\Resonances;
use Magpie\Core\Tuning\Sound;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;
use Throwable;

/**
 * Everything that reads what people bring, fed with damaged and made-up input: it answers, or refuses in words; it never warns, never
 * gives a number that is none, and takes neither long nor much memory.
 */
final class Readers
{
    /** Longer than this for one input of a few kilobytes is a fault, in seconds. */
    private const SLOW = 3.0;

    private const BITS = [
        '', "\0", "\xFF\xFE", "\u{FEFF}", '-', '--', '1e400', '-1e999', 'NaN', 'INF', '0x1F', '1,5', '1.5.5', '9999999999999999999',
        '±', '…', '²', 'µ', 'Ω', '"', '""', ';', ',', "\t", "\n", "\r", '(', ')', '[', ']', '{', '}', '%', '/0', '*', '=cmd()', '../',
        '<script>', 'G1', 'G92', 'M2000', 'X-', 'F0', 'facet', 'endsolid', 'vertex 1 2', 'null', 'true', '""', '[]', '{}', ' m', 'mm²',
        '°', '°C', 'K', ' to ', '..', ' V', 'AWG', 'kg m²', 'e', '+', 'A', "\u{202E}",
    ];

    private readonly Randomizer $random;

    /** @var array<string, array{list<string>, Closure(string): mixed}> seeds and reader, by name */
    private readonly array $readers;

    /** @var array<string, int> how many were read, by reader */
    public array $read = [];

    /** @var array<string, int> how many were refused */
    public array $refused = [];

    public function __construct(int $seed, string $demo)
    {
        $this->random = new Randomizer(new Xoshiro256StarStar($seed));
        $file = (string) file_get_contents($demo);
        $dimensions = Dimension::cases();
        $cube = "solid a\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\nendsolid a\n";
        $mapping = Mapping::guess(['Item', 'Qty', 'Voltage', 'Price', 'Link'], 'GBP');
        $rows = new RowReader($mapping, Catalogue::standard(), static fn (): null => null);
        $this->readers = [
            'quantity' => [
                ['24 V', '1.5 mm²', '-10 °C', '300 rpm', '2,5 A', '12 AWG', '1/4 in', '3 h 20 min', '5 kg m/s²', '1e-3 F'],
                fn (string $text): mixed => self::first($dimensions, static fn (Dimension $d): string => Quantity::parse($text, $d)->text()),
            ],
            'range' => [
                ['10 to 30 V', '10…30 V', '24 V ± 10 %', '≤ 5 A', '3–5 mm'],
                fn (string $text): mixed => self::first($dimensions, static fn (Dimension $d): string => Range::parse($text, $d)->text()),
            ],
            'build file' => [[$file], static fn (string $text): mixed => BuildFile::read($text)],
            'list' => [
                ['24 V supply;1;24 V;£12.50;https://shop.example/a', 'Fan 40 mm;2;12;3,20;', 'Stepper NEMA 23;4;;;'],
                static fn (string $text): mixed => $rows->read(2, array_slice(explode(';', $text), 0, 60)),
            ],
            'mesh' => [
                [$cube, str_repeat("\0", 80).pack('V', 1).pack('g12', 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1, 0)."\0\0"],
                static fn (string $bytes): mixed => MeshReader::read(str_split($bytes === '' ? ' ' : $bytes, 700)),
            ],
            'program' => [
                ["G21 G90\nG0 X0 Y0 Z5\nM3 S12000\nG1 Z-1 F200\nG2 X10 Y0 I5 J0\nG3 X0 Y0 R5\nG4 P1\nM5\nM30\n", "M104 S200\nG28\nG1 X10 E1.5 F1200\nG92 E0\nM106 S255\n"],
                static fn (string $text): mixed => ProgramReader::read(explode("\n", $text)),
            ],
            'heater' => [
                ["time,output,temperature\n".implode("\n", array_map(static fn (int $i): string => "{$i},".($i < 5 ? 0 : 40).','.(20 + max(0, $i - 8)), range(0, 60)))],
                static fn (string $text): mixed => Loop::of(HeaterLog::of(Log::read(explode("\n", $text)), 40))->toArray(),
            ],
            'spectrum' => [
                ["time,x\n".implode("\n", array_map(static fn (int $i): string => $i / 500 .','.sin($i / 3), range(0, 200)))],
                static fn (string $text): mixed => (new Resonances(Log::read(explode("\n", $text))))->toArray(),
            ],
            'note' => [
                [Wav::of(array_map(static fn (int $i): float => sin($i / 9) * exp(-$i / 900), range(0, 1500)), 8000)],
                static function (string $bytes): mixed {
                    $sound = Sound::read($bytes);

                    return get_object_vars(Note::heard($sound->samples, $sound->rate));
                },
            ],
            'edit' => [
                ['[{"section":"needs","ref":"a","set":[{"path":["quantity"],"to":3}]}]', '[{"section":"rates","create":{"from":"EUR","to":"GBP","worth":"0.86","date":"2026-12-01"}}]'],
                static fn (string $text): mixed => BuildFile::data(BuildFile::build(['magpie' => 2, 'build' => ['name' => 'x', 'kind' => 'x', 'currency' => 'GBP'], 'rates' => array_column((array) json_decode($text, true), 'create')])),
            ],
            'log' => [
                ["time,x\n0,0.1\n0.001,0.2\n0.002,-0.1\n", "t;a;b\n0;1;2\n0,5;1;2\n"],
                static fn (string $text): mixed => Log::read(explode("\n", $text)),
            ],
            'sound' => [
                [Wav::of(array_map(static fn (int $i): float => sin($i / 5), range(0, 300)), 8000)],
                static fn (string $bytes): mixed => Sound::read($bytes),
            ],
        ];
    }

    /**
     * @return list<string> what went wrong, with the input; none where all is as it should be
     */
    public function run(int $count): array
    {
        set_error_handler(static function (int $level, string $message, string $file, int $line): never {
            throw new ErrorException($message, 0, $level, $file, $line);
        });
        $wrong = [];
        $names = array_keys($this->readers);
        for ($i = 0; $i < $count && count($wrong) < 20; $i++) {
            // The build file takes longest and is in the other fuzz tests too: one in eight times eight.
            $name = $names[$i % count($names)];
            if ($name === 'build file' && $i % 64 !== 2) {
                $name = 'quantity';
            }
            [$seeds, $read] = $this->readers[$name];
            $input = $this->damaged($seeds[$this->random->getInt(0, count($seeds) - 1)]);
            $began = self::worked();
            try {
                $found = $read($input);
                $this->read[$name] = ($this->read[$name] ?? 0) + 1;
                if (! self::isFinite($found)) {
                    $wrong[] = "{$name}: a number that is none, of ".json_encode(substr($input, 0, 300), JSON_INVALID_UTF8_SUBSTITUTE);
                }
            } catch (CannotReadQuantity|CannotReadBuildFile|CannotReadMesh|CannotTune $refused) {
                $this->refused[$name] = ($this->refused[$name] ?? 0) + 1;
                if (trim($refused->getMessage()) === '') {
                    $wrong[] = "{$name}: refused without a word";
                }
            } catch (Throwable $crash) {
                $wrong[] = "{$name}: ".$crash::class." {$crash->getMessage()} at {$crash->getFile()}:{$crash->getLine()}, of ".
                    json_encode(substr($input, 0, 300), JSON_INVALID_UTF8_SUBSTITUTE);
            }
            if (self::worked() - $began > self::SLOW) {
                $wrong[] = "{$name}: took too long, of ".json_encode(substr($input, 0, 300), JSON_INVALID_UTF8_SUBSTITUTE);
            }
        }
        restore_error_handler();

        return $wrong;
    }

    /** Seconds of its own work: how busy the machine is otherwise is not the reader's fault. */
    private static function worked(): float
    {
        $used = getrusage() ?: [];

        return ($used['ru_utime.tv_sec'] ?? 0) + ($used['ru_utime.tv_usec'] ?? 0) / 1e6;
    }

    /**
     * As whichever quantity it can be read.
     *
     * @param  list<Dimension>  $dimensions
     * @param  Closure(Dimension): string  $read
     */
    private static function first(array $dimensions, Closure $read): string
    {
        $refused = null;
        foreach ($dimensions as $dimension) {
            try {
                return $read($dimension);
            } catch (CannotReadQuantity $refused) {
                continue;
            }
        }
        assert($refused !== null);
        throw $refused;
    }

    private function damaged(string $text): string
    {
        for ($times = $this->random->getInt(0, 6); $times > 0; $times--) {
            $at = $this->random->getInt(0, max(0, strlen($text)));
            $much = $this->random->getInt(0, min(40, strlen($text)));
            $bit = self::BITS[$this->random->getInt(0, count(self::BITS) - 1)];
            $text = match ($this->random->getInt(0, 6)) {
                0 => substr($text, 0, $at).$bit.substr($text, $at),
                1 => substr($text, 0, $at).substr($text, $at + $much),
                2 => substr($text, 0, $at).$this->random->getBytes(max(1, min(4, $much))).substr($text, $at + 1),
                3 => substr($text, 0, $at).str_repeat(substr($text, $at, $much), $this->random->getInt(1, 8)).substr($text, $at),
                4 => substr($text, 0, $at),
                5 => (string) preg_replace('/\d+/', (string) $this->random->getInt(-1_000_000, PHP_INT_MAX), $text, 1),
                default => substr($text, 0, $at).$bit.substr($text, $at + $much),
            };
        }

        return substr($text, 0, 400_000);
    }

    /** Whether no number anywhere in it is infinite or none; a reader may hold such marks of its own, not give them away. */
    private static function isFinite(mixed $found): bool
    {
        if (is_float($found)) {
            return is_finite($found);
        }
        if ($found instanceof Sound || $found instanceof Log || $found instanceof Mesh || $found instanceof ProgramReader) {
            $found = get_object_vars($found);
        }
        if (is_array($found)) {
            foreach ($found as $one) {
                if (! self::isFinite($one)) {
                    return false;
                }
            }
        }

        return true;
    }
}
