<?php

declare(strict_types=1);

namespace Magpie\Core\Programs;

/**
 * Reads a program in the words of ISO 6983-1 (from memory), line by line, and keeps what a machine is held against: bounds, feeds, turns,
 * the order in which a tool is switched and moved, heat, and the time by the model. It never keeps the program itself.
 */
final class ProgramReader
{
    private const AXES = ['X', 'Y', 'Z'];

    /** Corners sharper than this stop the machine: the cosine of the turn. */
    private const SHARP = 0.2;

    /** A cut shorter than the noise of rounding is none. */
    private const NOTHING = 1e-9;

    /** @var array<string, float|null> where it is; null where nobody knows yet */
    private array $at = ['X' => null, 'Y' => null, 'Z' => null];

    /** @var array<string, array{float, float}> */
    public array $bounds = [];

    /** @var array<string, array{float, float}> while the tool cuts, or material is laid */
    public array $cutting = [];

    /** @var array<string, float> mm/min, the fastest fed move by axis */
    public array $feeds = [];

    /** @var array<string, Trouble> by kind */
    private array $troubles = [];

    public int $lines = 0;

    public int $moves = 0;

    public float $cut = 0.0;

    public float $rapid = 0.0;

    public float $seconds = 0.0;

    public float $toolSeconds = 0.0;

    public float $laid = 0.0;

    /** @var array{float, float}|null rpm, slowest and fastest the spindle is told */
    public ?array $turns = null;

    /** @var array<string, float> highest set, °C, by what */
    public array $heat = [];

    public bool $ended = false;

    public int $pierces = 0;

    private int $motion = 0;

    private bool $absolute = true;

    private bool $absoluteE = true;

    private float $unit = 1.0;

    private ?float $feed = null;

    private bool $inverse = false;

    private ?float $speed = null;

    /** @var array{string, string} axes of the plane arcs lie in */
    private array $plane = ['X', 'Y'];

    private bool $isOn = false;

    private bool $probed = false;

    private bool $centreAbsolute = false;

    private ?float $retract = null;

    private ?float $depth = null;

    private float $extruded = 0.0;

    /** @var array{array{float, float, float}, float, float, float}|null direction, length, speed (mm/s), acceleration of the last move */
    private ?array $waiting = null;

    private float $entry = 0.0;

    public function __construct(private readonly Caps $caps = new Caps)
    {
    }

    /**
     * @param  iterable<string>  $lines
     * @param  (callable(int): void)|null  $progress  told the lines read, now and then
     */
    public static function read(iterable $lines, ?Caps $caps = null, ?callable $progress = null): self
    {
        $reader = new self($caps ?? new Caps);
        foreach ($lines as $line) {
            $reader->line($line);
            if ($progress !== null && $reader->lines % 20_000 === 0) {
                $progress($reader->lines);
            }
        }
        $reader->finish();

        return $reader;
    }

    /**
     * @return list<Trouble>
     */
    public function troubles(): array
    {
        return array_values($this->troubles);
    }

    private function trouble(string $kind, string $verdict, string $says): void
    {
        $held = $this->troubles[$kind] ?? null;
        $this->troubles[$kind] =
            $held === null
                ? new Trouble($verdict, $says, $this->lines)
                : new Trouble($held->verdict, $held->says, $held->line, $held->times + 1);
    }

    public function line(string $text): void
    {
        $this->lines++;
        if (strlen($text) > 4096) {
            $this->trouble('long', 'unproven', 'A line is longer than 4096 letters: it was not read.');

            return;
        }
        $text = strtoupper($text);
        if (strpbrk($text, '(;') !== false) {
            $text = (string) preg_replace('/\([^)]*\)|;.*|\(.*$/', '', $text);
        }
        $text = trim($text);
        if ($text === '' || $text[0] === '%' || $text[0] === '/') {
            return;
        }
        if (strpbrk($text, '#[]=<>') !== false) {
            $this->trouble(
                'parameters',
                'unproven',
                'It works with parameters, which are not worked here: nothing after that is proven.',
            );

            return;
        }
        preg_match_all('/([A-Z])\s*([+-]?(?:\d+\.?\d*|\.\d+))/', $text, $found, PREG_SET_ORDER);
        $words = [];
        $g = $m = [];
        $read = 0;
        foreach ($found as [$whole, $letter, $number]) {
            $read += strlen($whole);
            if ($letter === 'G') {
                $g[] = (float) $number;
            } elseif ($letter === 'M') {
                $m[] = (int) $number;
            } else {
                $words[$letter] = (float) $number;
            }
        }
        if (
            $read < strlen(str_replace([' ', "\t"], '', $text)) - (substr_count($text, '*') > 0 ? 4 : 0) &&
            ! in_array(117, $m, true)
        ) {
            $this->trouble(
                'word',
                'unproven',
                'A line could not be read: “'.mb_substr(mb_scrub($text), 0, 60).'”.',
            );
        }
        $this->obey($g, $m, $words);
    }

    /**
     * @param  list<float>  $g
     * @param  list<int>  $m
     * @param  array<string, float>  $words
     */
    private function obey(array $g, array $m, array $words): void
    {
        if (isset($words['F']) && $words['F'] > 0) {
            $this->feed = $words['F'] * $this->unit;
        } elseif (isset($words['F'])) {
            $this->trouble('feed', 'fails', 'A feed of nothing.');
        }
        if (isset($words['S']) && array_intersect($m, [104, 109, 140, 141, 190, 191, 106]) === []) {
            $this->speed = $words['S'];
        }
        foreach ($m as $code) {
            $this->switch($code, $words);
        }
        $moves = false;
        foreach ($g as $code) {
            switch ($code) {
                case 0.0:
                case 1.0:
                case 2.0:
                case 3.0:
                    $this->motion = (int) $code;
                    break;
                case 4.0:
                    $this->seconds += isset($words['P'])
                        ? $words['P'] / ($words['P'] > 60 ? 1000 : 1)
                        : $words['S'] ?? 0.0;
                    $this->toolSeconds += $this->isOn ? $words['P'] ?? 0.0 : 0.0;

                    return;
                case 17.0:
                    $this->plane = ['X', 'Y'];
                    break;
                case 18.0:
                    $this->plane = ['Z', 'X'];
                    break;
                case 19.0:
                    $this->plane = ['Y', 'Z'];
                    break;
                case 20.0:
                    $this->unit = 25.4;
                    break;
                case 21.0:
                    $this->unit = 1.0;
                    break;
                case 28.0:
                case 30.0:
                    $this->home($words);

                    return;
                case 53.0:
                    $this->trouble(
                        'machine',
                        'unproven',
                        'It moves in the machine’s own coordinates: where that is, it does not say.',
                    );

                    return;
                case 80.0:
                    $this->motion = 80;
                    break;
                case 81.0:
                case 82.0:
                case 83.0:
                case 85.0:
                case 86.0:
                case 89.0:
                    $this->motion = 81;
                    break;
                case 90.0:
                    $this->absolute = $this->absoluteE = true;
                    break;
                case 91.0:
                    $this->absolute = $this->absoluteE = false;
                    break;
                case 90.1:
                    $this->centreAbsolute = true;
                    break;
                case 91.1:
                    $this->centreAbsolute = false;
                    break;
                case 92.0:
                    $this->shift($words);

                    return;
                case 93.0:
                    $this->inverse = true;
                    break;
                case 94.0:
                    $this->inverse = false;
                    break;
                default:
                    if ($code >= 38.0 && $code < 39.0) {
                        $this->probed = true;
                        $this->motion = 38;
                    } elseif (
                        ! in_array(
                            $code,
                            [
                                40.0,
                                41.0,
                                42.0,
                                43.0,
                                49.0,
                                54.0,
                                55.0,
                                56.0,
                                57.0,
                                58.0,
                                59.0,
                                61.0,
                                64.0,
                                98.0,
                                99.0,
                                10.0,
                                29.0,
                                95.0,
                                96.0,
                                97.0,
                            ],
                            true,
                        )
                    ) {
                        $this->trouble(
                            "g{$code}",
                            'unproven',
                            'G'.rtrim(rtrim(number_format($code, 1, '.', ''), '0'), '.').' is not known here.',
                        );
                    } elseif ($code === 41.0 || $code === 42.0) {
                        $this->trouble(
                            'offset',
                            'unproven',
                            'Cutter compensation: the path is off by the radius, either way.',
                        );
                    }
            }
        }
        foreach (self::AXES as $axis) {
            $moves = $moves || isset($words[$axis]);
        }
        $moves = $moves || isset($words['I'], $words['J']);
        if ($moves || (isset($words['E']) && ! isset($words['S']))) {
            $this->move($words);
        }
    }

    /**
     * @param  array<string, float>  $words
     */
    private function switch(int $code, array $words): void
    {
        switch ($code) {
            case 3:
            case 4:
                if ($code === 4 && ! $this->caps->torch) {
                    $this->trouble('reverse', 'fails', 'It turns the spindle backwards (M4).');
                }
                if ($this->speed === null) {
                    $this->trouble(
                        'no-speed',
                        'fails',
                        $this->caps->torch
                            ? 'The torch is switched on with no power word in force: its output stays at nothing.'
                            : 'The spindle is switched on with no speed in force.',
                    );
                } elseif (! $this->caps->torch) {
                    $this->turns = [
                        min($this->turns[0] ?? $this->speed, $this->speed),
                        max($this->turns[1] ?? $this->speed, $this->speed),
                    ];
                }
                if ($this->caps->torch) {
                    $this->pierces++;
                    if (! $this->probed) {
                        $this->trouble(
                            'no-probe',
                            'fails',
                            'The torch pierces without a probe of the surface before it.',
                        );
                    }
                    $this->probed = false;
                }
                $this->isOn = true;
                break;
            case 5:
                $this->isOn = false;
                break;
            case 2:
            case 30:
                if ($this->isOn) {
                    $this->trouble(
                        'end-on',
                        'tight',
                        'It ends with the tool still on; M'.$code.' puts it off on most machines, not on all.',
                    );
                }
                $this->ended = true;
                break;
            case 104:
            case 109:
                $this->heated('nozzle', $words);
                break;
            case 140:
            case 190:
                $this->heated('bed', $words);
                break;
            case 141:
            case 191:
                $this->heated('chamber', $words);
                break;
            case 82:
                $this->absoluteE = true;
                break;
            case 83:
                $this->absoluteE = false;
                break;
        }
    }

    /**
     * @param  array<string, float>  $words
     */
    private function heated(string $what, array $words): void
    {
        $to = $words['S'] ?? ($words['R'] ?? null);
        if ($to !== null) {
            $this->heat[$what] = max($this->heat[$what] ?? 0.0, $to);
        }
    }

    /**
     * @param  array<string, float>  $words
     */
    private function home(array $words): void
    {
        $this->stop();
        $named = array_filter(self::AXES, static fn (string $axis): bool => isset($words[$axis]));
        foreach ($named === [] ? self::AXES : $named as $axis) {
            $this->at[$axis] = null;
        }
    }

    /**
     * @param  array<string, float>  $words
     */
    private function shift(array $words): void
    {
        foreach (self::AXES as $axis) {
            if (isset($words[$axis])) {
                $this->trouble(
                    'shift',
                    'unproven',
                    'It shifts its own zero (G92): bounds are counted from the one in force.',
                );
                $this->at[$axis] = $words[$axis] * $this->unit;
            }
        }
        if (isset($words['E'])) {
            $this->extruded = $words['E'] * $this->unit;
        }
    }

    /**
     * @param  array<string, float>  $words
     */
    private function move(array $words): void
    {
        if ($this->motion === 81) {
            $this->drill($words);

            return;
        }
        if ($this->motion === 80) {
            $this->trouble('no-motion', 'fails', 'It names a place, and no motion is in force.');

            return;
        }
        $from = $this->at;
        $to = $from;
        foreach (self::AXES as $axis) {
            if (isset($words[$axis])) {
                $value = $words[$axis] * $this->unit;
                $to[$axis] = $this->absolute ? $value : ($from[$axis] ?? 0.0) + $value;
            }
        }
        $laid = 0.0;
        if (isset($words['E'])) {
            $value = $words['E'] * $this->unit;
            $laid = $this->absoluteE ? $value - $this->extruded : $value;
            $this->extruded = $this->absoluteE ? $value : $this->extruded + $value;
            $this->laid += max(0.0, $laid);
        }
        $this->moves++;
        $isFed = $this->motion !== 0;
        if ($this->caps->torch && $this->isOn && ! $isFed) {
            $this->trouble('torch-travel', 'danger', 'The torch is on while it travels (G0).');
        }
        if ($isFed && $this->motion !== 38 && $this->feed === null && ! $this->inverse) {
            $this->trouble('no-feed', 'fails', 'It feeds before a feed is given.');
        }
        $points = $this->motion === 2 || $this->motion === 3 ? $this->arc($from, $to, $words) : [$to];
        $length = 0.0;
        $extent = [];
        $here = $from;
        foreach ($points as $point) {
            $square = 0.0;
            foreach (self::AXES as $axis) {
                $d = $point[$axis] === null || $here[$axis] === null ? 0.0 : $point[$axis] - $here[$axis];
                $square += $d * $d;
                $extent[$axis] = max($extent[$axis] ?? 0.0, abs($d));
            }
            $length += sqrt($square);
            $here = $point;
        }
        // What cuts is fed and goes down or across with the tool on; a printer lays while it extrudes.
        $isCut = $isFed && $this->motion !== 38 && ($this->isOn || $laid > self::NOTHING);
        if (
            $isFed &&
            ! $isCut &&
            ! $this->caps->torch &&
            $this->heat === [] &&
            $this->caps->tool !== null &&
            $this->motion !== 38 &&
            $length > self::NOTHING &&
            ($to['Z'] ?? 1.0) < 0
        ) {
            $this->trouble('off-cut', 'fails', "It cuts below nought with {$this->caps->tool} off.");
        }
        foreach ([$from, ...$points] as $point) {
            foreach (self::AXES as $axis) {
                if ($point[$axis] !== null) {
                    self::widen($this->bounds, $axis, $point[$axis]);
                    if ($isCut) {
                        self::widen($this->cutting, $axis, $point[$axis]);
                    }
                }
            }
        }
        $this->at = $to;
        $isCut ? ($this->cut += $length) : ($this->rapid += $length);
        $this->timed($from, $to, $length, $isFed, $laid, count($points) > 1);
    }

    /**
     * @param  array<string, array{float, float}>  $bounds
     */
    private static function widen(array &$bounds, string $axis, float $value): void
    {
        if (! isset($bounds[$axis])) {
            $bounds[$axis] = [$value, $value];
        } elseif ($value < $bounds[$axis][0]) {
            $bounds[$axis][0] = $value;
        } elseif ($value > $bounds[$axis][1]) {
            $bounds[$axis][1] = $value;
        }
    }

    /**
     * @param  array<string, float>  $words
     */
    private function drill(array $words): void
    {
        if (! $this->isOn && $this->caps->tool !== null) {
            $this->trouble('off-cut', 'fails', "It cuts below nought with {$this->caps->tool} off.");
        }
        $this->retract = isset($words['R']) ? $words['R'] * $this->unit : $this->retract;
        $this->depth = isset($words['Z']) ? $words['Z'] * $this->unit : $this->depth;
        if ($this->retract === null || $this->depth === null) {
            $this->trouble('cycle', 'fails', 'A drilling cycle without its height (R) or depth (Z).');

            return;
        }
        [$retract, $depth, $unit] = [$this->retract, $this->depth, $this->unit];
        $this->unit = 1.0;
        $absolute = $this->absolute;
        foreach (
            [
                [
                    0,
                    array_map(
                        static fn (float $v): float => $v * $unit,
                        array_intersect_key($words, ['X' => 1, 'Y' => 1]),
                    ),
                ],
                [0, ['Z' => $retract]],
                [1, ['Z' => $depth]],
                [0, ['Z' => $retract]],
            ] as [$motion, $place]
        ) {
            $this->motion = $motion;
            $this->absolute = $absolute || isset($place['Z']);
            if ($place !== []) {
                $this->move($place);
            }
        }
        [$this->unit, $this->motion, $this->absolute] = [$unit, 81, $absolute];
    }

    /**
     * Points along an arc: its quadrants, so that its bounds are right, and what lies between for its length.
     *
     * @param  array<string, float|null>  $from
     * @param  array<string, float|null>  $to
     * @param  array<string, float>  $words
     * @return non-empty-list<array<string, float|null>>
     */
    private function arc(array $from, array $to, array $words): array
    {
        [$a, $b] = $this->plane;
        $c = array_values(array_diff(self::AXES, $this->plane))[0];
        [$x0, $y0, $x1, $y1] = [$from[$a], $from[$b], $to[$a], $to[$b]];
        if ($x0 === null || $y0 === null || $x1 === null || $y1 === null) {
            $this->trouble('arc-start', 'unproven', 'An arc begins where nobody knows.');

            return [$to];
        }
        $names = ['X' => 'I', 'Y' => 'J', 'Z' => 'K'];
        if (isset($words['R'])) {
            $r = $words['R'] * $this->unit;
            $chord = hypot($x1 - $x0, $y1 - $y0);
            if ($chord < self::NOTHING || abs($r) < $chord / 2 - 1e-3) {
                $this->trouble('arc', 'fails', 'An arc whose radius does not reach from its begin to its end.');

                return [$to];
            }
            $high = sqrt(max(0.0, $r ** 2 - ($chord / 2) ** 2)) * ($r < 0 ? -1 : 1) * ($this->motion === 2 ? 1 : -1);
            $cx = ($x0 + $x1) / 2 + ($high * ($y1 - $y0)) / $chord;
            $cy = ($y0 + $y1) / 2 - ($high * ($x1 - $x0)) / $chord;
        } else {
            $i = ($words[$names[$a]] ?? 0.0) * $this->unit;
            $j = ($words[$names[$b]] ?? 0.0) * $this->unit;
            [$cx, $cy] = $this->centreAbsolute ? [$i, $j] : [$x0 + $i, $y0 + $j];
        }
        $r = hypot($x0 - $cx, $y0 - $cy);
        if ($r < self::NOTHING || abs(hypot($x1 - $cx, $y1 - $cy) - $r) > max(0.02, 0.002 * $r)) {
            $this->trouble('arc', 'fails', 'An arc whose centre is not as far from its begin as from its end.');

            return [$to];
        }
        $start = atan2($y0 - $cy, $x0 - $cx);
        $turn = atan2($y1 - $cy, $x1 - $cx) - $start;
        $way = $this->motion === 3 ? 1 : -1;
        $turn = $way > 0 ? ($turn <= 1e-9 ? $turn + 2 * M_PI : $turn) : ($turn >= -1e-9 ? $turn - 2 * M_PI : $turn);
        $steps = max(4, (int) ceil(abs($turn) / (M_PI / 18)));
        $angles = [];
        for ($k = 1; $k < $steps; $k++) {
            $angles[] = ($turn * $k) / $steps;
        }
        // The four quadrants are exact.
        for ($q = -8; $q <= 8; $q++) {
            $off = ($q * M_PI) / 2 - $start;
            if ($way > 0 ? $off > 0 && $off < $turn : $off < 0 && $off > $turn) {
                $angles[] = $off;
            }
        }
        sort($angles);
        $angles = $way > 0 ? $angles : array_reverse($angles);
        $points = [];
        foreach ($angles as $off) {
            $share = $off / $turn;
            $points[] = [
                $a => $cx + $r * cos($start + $off),
                $b => $cy + $r * sin($start + $off),
                $c => $from[$c] === null || $to[$c] === null ? $to[$c] : $from[$c] + ($to[$c] - $from[$c]) * $share,
            ];
        }
        $points[] = $to;

        return $points;
    }

    /**
     * Time of a move, with its rise and fall: it waits for the next, since only that says how fast it may leave.
     *
     * @param  array<string, float|null>  $from
     * @param  array<string, float|null>  $to
     */
    private function timed(array $from, array $to, float $length, bool $isFed, float $laid, bool $isArc): void
    {
        if ($length < self::NOTHING) {
            // A retraction or a first place: the filament alone moves.
            $this->stop();
            $this->seconds += $this->feed !== null && abs($laid) > 0 ? abs($laid) / ($this->feed / 60) : 0.0;

            return;
        }
        $direction = [];
        $straight = 0.0;
        foreach (self::AXES as $axis) {
            $d = $from[$axis] === null || $to[$axis] === null ? 0.0 : $to[$axis] - $from[$axis];
            $direction[] = $d;
            $straight += $d * $d;
        }
        $straight = sqrt($straight);
        $unit =
            $straight < self::NOTHING
                ? [1.0, 0.0, 0.0]
                : [$direction[0] / $straight, $direction[1] / $straight, $direction[2] / $straight];
        $speed = $isFed ? ($this->inverse ? $length * ($this->feed ?? 1.0) : $this->feed ?? INF) : INF;
        $rise = INF;
        foreach (self::AXES as $i => $axis) {
            // An arc may point along each of its axes on the way.
            $share = $isArc ? 1.0 : abs($unit[$i]);
            if ($share < 1e-6 || ($isArc && ! in_array($axis, $this->plane, true))) {
                continue;
            }
            if ($isFed && $this->feed !== null && ! $this->inverse) {
                $this->feeds[$axis] = max($this->feeds[$axis] ?? 0.0, $this->feed * min(1.0, $share));
            }
            if (isset($this->caps->speed[$axis])) {
                $speed = min($speed, $this->caps->speed[$axis] / $share);
            }
            if (isset($this->caps->acceleration[$axis])) {
                $rise = min($rise, $this->caps->acceleration[$axis] / $share);
            }
        }
        $this->pass($unit);
        $this->waiting = [$unit, $length, is_finite($speed) ? max(1e-6, $speed / 60) : 1e9, $rise];
    }

    /**
     * The move that waits is done, and left as fast as the corner lets it.
     *
     * @param  array{float, float, float}|null  $next  direction of what follows; null where it stops
     */
    private function pass(?array $next): void
    {
        if ($this->waiting === null) {
            return;
        }
        [$unit, $length, $speed, $rise] = $this->waiting;
        $this->waiting = null;
        if ($speed >= 1e9) {
            $this->entry = 0.0;

            return;
        }
        $corner = $next === null ? -1.0 : $unit[0] * $next[0] + $unit[1] * $next[1] + $unit[2] * $next[2];
        $exit = $corner <= self::SHARP ? 0.0 : ($speed * ($corner - self::SHARP)) / (1 - self::SHARP);
        if (! is_finite($rise)) {
            $seconds = $length / $speed;
        } else {
            $in = min($this->entry, $speed);
            $exit = min($exit, sqrt($in ** 2 + 2 * $rise * $length));
            $top = sqrt($rise * $length + ($in ** 2 + $exit ** 2) / 2);
            $seconds =
                $top < $speed
                    ? max(0.0, (2 * max($top, $in, $exit) - $in - $exit) / $rise)
                    : ($speed - $in) / $rise +
                        ($speed - $exit) / $rise +
                        ($length - (2 * $speed ** 2 - $in ** 2 - $exit ** 2) / (2 * $rise)) / $speed;
        }
        $this->entry = $exit;
        $this->seconds += $seconds;
        $this->toolSeconds += $this->isOn ? $seconds : 0.0;
    }

    private function stop(): void
    {
        $this->pass(null);
        $this->entry = 0.0;
    }

    private function finish(): void
    {
        $this->stop();
        if ($this->moves === 0) {
            $this->trouble('empty', 'fails', 'Nothing moves in it: it is no program, or one in other words.');
        }
        if ($this->isOn && ! $this->ended) {
            $this->trouble('left-on', 'danger', 'It ends with the tool on, and does not say that it ends.');
        }
    }
}
