<?php

declare(strict_types=1);

namespace Magpie\Core\Programs;

use Magpie\Core\Inspection\Verdict;

/**
 * Reads a program in the words of ISO 6983-1 (from memory), line by line, and keeps what a machine is held against: bounds, feeds, turns,
 * the order in which a tool is switched and moved, heat, and the time by the model. It never keeps the program itself.
 */
final class ProgramReader
{
    private const AXES = ['X', 'Y', 'Z'];

    /** A cut shorter than the noise of rounding is none, mm. */
    private const NOTHING = 1e-9;

    private const PROBE = 38;

    private const NO_MOTION = 80;

    private const CYCLE = 81;

    /** Codes are in tenths: 382 is G38.2. */
    private const MOTIONS = [
        0 => 0,
        10 => 1,
        20 => 2,
        30 => 3,
        382 => self::PROBE,
        383 => self::PROBE,
        384 => self::PROBE,
        385 => self::PROBE,
        800 => self::NO_MOTION,
        730 => self::CYCLE,
        810 => self::CYCLE,
        820 => self::CYCLE,
        830 => self::CYCLE,
        850 => self::CYCLE,
        860 => self::CYCLE,
        890 => self::CYCLE,
    ];

    /** The axes of the plane arcs lie in. */
    private const PLANES = [170 => ['X', 'Y'], 180 => ['Z', 'X'], 190 => ['Y', 'Z']];

    /** How many mm one of its lengths is. */
    private const UNITS = [200 => 25.4, 210 => 1.0];

    /** Whether places are said from nought, not from where it is. */
    private const ABSOLUTE = [900 => true, 910 => false];

    private const CENTRE_ABSOLUTE = [901 => true, 911 => false];

    /** Whether a feed is one over the minutes of its move. */
    private const INVERSE = [930 => true, 940 => false];

    /** Whether a drill goes back to where it came from, not just to its height. */
    private const FAR_BACK = [980 => true, 990 => false];

    /** Tool lengths, offsets in force, how exactly corners are kept, filament drawn in by the firmware. */
    private const HARMLESS = [
        100, 110, 400, 410, 420, 430, 490, 540, 550, 560, 570, 580, 590, 591, 592, 593, 610, 611, 640, 921, 970,
    ];

    /** @var array<string, float|null> mm, where it is; null where nobody knows yet */
    private array $at = ['X' => null, 'Y' => null, 'Z' => null];

    /** @var array<string, array{float, float}> mm */
    public array $bounds = [];

    /** @var array<string, array{float, float}> mm, while the tool cuts, or material is laid */
    public array $cutting = [];

    /** @var array<string, float> mm/min, the fastest fed move by axis */
    public array $feeds = [];

    /** @var array<string, Trouble> by kind */
    private array $troubles = [];

    public int $lines = 0;

    public int $moves = 0;

    /** mm */
    public float $cut = 0.0;

    /** mm */
    public float $rapid = 0.0;

    /** mm of filament */
    public float $laid = 0.0;

    /** @var array{float, float}|null rpm, slowest and fastest the spindle is told */
    public ?array $turns = null;

    /** @var array<string, float> highest set, °C, by what */
    public array $heat = [];

    public bool $ended = false;

    public int $pierces = 0;

    public readonly MoveTimes $times;

    private int $motion = 0;

    private bool $absolute = true;

    private bool $absoluteE = true;

    private float $unit = 1.0;

    private ?float $feed = null;

    private bool $inverse = false;

    private ?float $speed = null;

    /** @var array{string, string} */
    private array $plane = self::PLANES[170];

    /** Told to be on; a spindle told to turn at nothing is not. */
    private bool $isTold = false;

    private bool $probed = false;

    private bool $centreAbsolute = false;

    private bool $isFarBack = true;

    private ?float $retract = null;

    private ?float $depth = null;

    private float $extruded = 0.0;

    public function __construct(private readonly Caps $caps = new Caps)
    {
        $this->times = new MoveTimes;
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

    private function trouble(string $kind, Verdict $verdict, string $says): void
    {
        $held = $this->troubles[$kind] ?? null;
        $this->troubles[$kind] =
            $held === null
                ? new Trouble($verdict, $says, $this->lines)
                : new Trouble($held->verdict, $held->says, $held->line, $held->times + 1);
    }

    /** What comes after its end is for nobody. */
    public function line(string $text): void
    {
        $this->lines++;
        if (strlen($text) > 4096) {
            $this->trouble('long', Verdict::Unproven, 'A line is longer than 4096 letters: it was not read.');
        } elseif (! $this->ended) {
            $this->obey(Block::of($text));
        }
    }

    private function obey(Block $block): void
    {
        if ($block->hasParameters) {
            $this->trouble(
                'parameters',
                Verdict::Unproven,
                'It works with parameters, which are not worked here: nothing after that is proven.',
            );

            return;
        }
        if ($block->unread !== null) {
            $says = 'A line could not be read: “'.mb_substr(mb_scrub($block->unread), 0, 60).'”.';
            $this->trouble('word', Verdict::Unproven, $says);
        }
        foreach ($block->g as $code) {
            $this->set($code);
        }
        $this->feed($block);
        $this->speed($block);
        foreach ($block->m === [] ? [] : $block->inOrder() as $code) {
            $this->switch($code, $block);
        }
        if (! $this->acts($block) && $this->isMove($block)) {
            $this->move($block);
        }
        foreach (array_intersect($block->m, Block::ENDS) as $code) {
            $this->end($code);
        }
    }

    /** What stays in force until another of its group comes. */
    private function set(int $code): void
    {
        $this->motion = self::MOTIONS[$code] ?? $this->motion;
        $this->plane = self::PLANES[$code] ?? $this->plane;
        $this->unit = self::UNITS[$code] ?? $this->unit;
        $this->absolute = self::ABSOLUTE[$code] ?? $this->absolute;
        $this->absoluteE = self::ABSOLUTE[$code] ?? $this->absoluteE;
        $this->centreAbsolute = self::CENTRE_ABSOLUTE[$code] ?? $this->centreAbsolute;
        $this->inverse = self::INVERSE[$code] ?? $this->inverse;
        $this->isFarBack = self::FAR_BACK[$code] ?? $this->isFarBack;
        $this->probed = $this->probed || (self::MOTIONS[$code] ?? null) === self::PROBE;
    }

    private function feed(Block $block): void
    {
        $feed = $block->sets() ? null : $block->word('F');
        if ($feed !== null && $feed > 0) {
            $this->feed = $feed * ($this->inverse ? 1.0 : $this->unit);
        } elseif ($feed !== null) {
            $this->trouble('feed', Verdict::Fails, 'A feed of nothing.');
        }
    }

    private function speed(Block $block): void
    {
        if ($block->hasSpeed()) {
            $this->speed = $block->words['S'];
            $this->turn();
        }
    }

    /** How fast it turns counts from when it is told to. */
    private function turn(): void
    {
        if ($this->isTold && ! $this->caps->torch && $this->speed > 0) {
            $this->turns = [
                min($this->turns[0] ?? $this->speed, $this->speed),
                max($this->turns[1] ?? $this->speed, $this->speed),
            ];
        }
    }

    private function isOn(): bool
    {
        return $this->isTold && ($this->caps->torch || $this->speed === null || $this->speed > 0);
    }

    private function switch(int $code, Block $block): void
    {
        match ($code) {
            3, 4 => $this->caps->torch ? $this->pierce() : $this->spin($code === 4),
            5 => ($this->isTold = false),
            6 => $this->change(),
            104, 109 => $this->heated('nozzle', $block),
            140, 190 => $this->heated('bed', $block),
            141, 191 => $this->heated('chamber', $block),
            82, 83 => ($this->absoluteE = $code === 82),
            97, 98 => $this->trouble(
                'elsewhere',
                Verdict::Unproven,
                "It calls what stands elsewhere (M{$code}): what that does was not read.",
            ),
            default => null,
        };
    }

    private function spin(bool $backwards): void
    {
        if ($backwards) {
            $this->trouble('reverse', Verdict::Fails, 'It turns the spindle backwards (M4).');
        }
        if ($this->speed === null) {
            $this->trouble('no-speed', Verdict::Fails, 'The spindle is switched on with no speed in force.');
        }
        $this->isTold = true;
        $this->turn();
    }

    private function pierce(): void
    {
        if ($this->speed === null) {
            $this->trouble(
                'no-speed',
                Verdict::Fails,
                'The torch is switched on with no power word in force: its output stays at nothing.',
            );
        }
        if (! $this->probed) {
            $this->trouble('no-probe', Verdict::Fails, 'The torch pierces without a probe of the surface before it.');
        }
        $this->pierces++;
        $this->probed = false;
        $this->isTold = true;
    }

    private function change(): void
    {
        if ($this->isOn()) {
            $this->trouble(
                'change-on',
                Verdict::Tight,
                'It changes the tool with the spindle on; M6 stops it on most machines, not on all.',
            );
        }
        $this->isTold = false;
    }

    private function end(int $code): void
    {
        if ($this->isOn()) {
            $this->trouble(
                'end-on',
                Verdict::Tight,
                "It ends with the tool still on; M{$code} puts it off on most machines, not on all.",
            );
        }
        $this->ended = true;
    }

    private function heated(string $what, Block $block): void
    {
        $to = $block->word('S') ?? $block->word('R');
        if ($to !== null) {
            $this->heat[$what] = max($this->heat[$what] ?? 0.0, $to);
        }
    }

    /** What its codes do at once; whether the other words of the line were theirs. */
    private function acts(Block $block): bool
    {
        foreach ($block->g as $code) {
            $does = match ($code) {
                40 => $this->dwell(...),
                280, 290, 300 => $this->home(...),
                530 => $this->inItsOwn(...),
                920 => $this->shift(...),
                100 => $block->has('L') ? fn (Block $b) => $this->offset($b, $code) : null,
                500, 510, 520, 680, 923 => fn (Block $b) => $this->offset($b, $code),
                default => null,
            };
            if ($does !== null) {
                $does($block);

                return true;
            }
            $this->doubt($code);
        }

        return false;
    }

    private function doubt(int $code): void
    {
        if ($code === 410 || $code === 420) {
            $this->trouble(
                'offset',
                Verdict::Unproven,
                'Cutter compensation: the path is off by the radius, either way.',
            );
        }
        $isKnown =
            isset(self::MOTIONS[$code]) ||
            isset(self::PLANES[$code]) ||
            isset(self::UNITS[$code]) ||
            isset(self::ABSOLUTE[$code]) ||
            isset(self::CENTRE_ABSOLUTE[$code]) ||
            isset(self::INVERSE[$code]) ||
            isset(self::FAR_BACK[$code]) ||
            in_array($code, self::HARMLESS, true);
        if (! $isKnown) {
            $this->trouble("g{$code}", Verdict::Unproven, self::name($code).' is not known here.');
        }
    }

    private static function name(int $code): string
    {
        return 'G'.intdiv($code, 10).($code % 10 === 0 ? '' : '.'.($code % 10));
    }

    /** P is in seconds; a large one is in the thousandths many machines take. */
    private function dwell(Block $block): void
    {
        $this->times->stop();
        $pause = $block->word('P');
        $this->times->wait(
            $pause === null ? $block->word('S') ?? 0.0 : $pause / ($pause > 60 ? 1000 : 1),
            $this->isOn(),
        );
    }

    private function home(Block $block): void
    {
        $this->times->stop();
        $this->lose($block->has(...self::AXES) ? $block : null);
    }

    /** In the machine's own coordinates only nought is known: where it homes. */
    private function inItsOwn(Block $block): void
    {
        $this->times->stop();
        $this->moves++;
        $this->lose($block);
        if (array_filter(array_intersect_key($block->words, $this->at)) !== []) {
            $this->trouble(
                'machine',
                Verdict::Unproven,
                'It moves in the machine’s own coordinates: where that is, it does not say.',
            );
        }
    }

    /** Nobody knows any more where it is along the axes a line names; along all of them without one. */
    private function lose(?Block $named): void
    {
        foreach (self::AXES as $axis) {
            if ($named === null || $named->has($axis)) {
                $this->at[$axis] = null;
            }
        }
    }

    private function shift(Block $block): void
    {
        if ($block->has(...self::AXES)) {
            $this->shifted(920);
        }
        foreach (array_intersect_key($block->words, $this->at) as $axis => $to) {
            $this->at[$axis] = $to * $this->unit;
        }
        if ($block->has('E')) {
            $this->extruded = $block->words['E'] * $this->unit;
        }
    }

    private function offset(Block $block, int $code): void
    {
        $this->shifted($code);
        $this->lose($block);
    }

    private function shifted(int $code): void
    {
        $this->trouble(
            'shift',
            Verdict::Unproven,
            'It shifts its own zero ('.self::name($code).'): bounds are counted from the one in force.',
        );
    }

    private function isMove(Block $block): bool
    {
        $isArc = $this->motion === 2 || $this->motion === 3;

        return ! $block->sets() && ($block->has('X', 'Y', 'Z', 'E') || ($isArc && $block->has('I', 'J', 'K')));
    }

    private function move(Block $block): void
    {
        if ($this->motion === self::CYCLE) {
            $this->drill($block);

            return;
        }
        if ($this->motion === self::NO_MOTION) {
            $this->trouble('no-motion', Verdict::Fails, 'It names a place, and no motion is in force.');

            return;
        }
        $this->moves++;
        [$from, $to] = [$this->at, $this->target($block)];
        $laid = $this->extrude($block);
        $points = $this->path($from, $to, $block);
        $length = self::length($from, $points);
        $isFed = $this->motion !== 0;
        // What cuts is fed and goes down or across with the tool on; a printer lays while it extrudes.
        $isCut = $isFed && $this->motion !== self::PROBE && ($this->isOn() || $laid > self::NOTHING);
        $this->suspect($isFed, $isCut, $length > self::NOTHING && ($to['Z'] ?? 1.0) < 0);
        foreach ([$from, ...$points] as $point) {
            self::widen($this->bounds, $point);
            if ($isCut) {
                self::widen($this->cutting, $point);
            }
        }
        $this->at = $to;
        $isCut ? ($this->cut += $length) : ($this->rapid += $length);
        $this->clock($from, $to, $length, $isFed, $laid, count($points) > 1);
    }

    /**
     * @return array<string, float|null>
     */
    private function target(Block $block): array
    {
        $to = $this->at;
        foreach (self::AXES as $axis) {
            if (isset($block->words[$axis])) {
                $to[$axis] = $block->words[$axis] * $this->unit + ($this->absolute ? 0.0 : $this->at[$axis] ?? 0.0);
            }
        }

        return $to;
    }

    /** mm of filament it pushes; below nought where it draws it in. */
    private function extrude(Block $block): float
    {
        if (! $block->has('E')) {
            return 0.0;
        }
        $value = $block->words['E'] * $this->unit;
        $laid = $this->absoluteE ? $value - $this->extruded : $value;
        $this->extruded += $laid;
        $this->laid += max(0.0, $laid);

        return $laid;
    }

    /**
     * @param  array<string, float|null>  $from
     * @param  array<string, float|null>  $to
     * @return non-empty-list<array<string, float|null>>
     */
    private function path(array $from, array $to, Block $block): array
    {
        if ($this->motion !== 2 && $this->motion !== 3) {
            return [$to];
        }
        $arc = new ArcPath($this->plane, $this->motion === 3, $this->centreAbsolute, $this->unit);
        $points = $arc->points($from, $to, $block);
        if ($points instanceof Trouble) {
            $this->trouble($points->says, $points->verdict, $points->says);

            return [$to];
        }

        return $points;
    }

    /**
     * @param  array<string, float|null>  $from
     * @param  list<array<string, float|null>>  $points
     * @return float mm, as far as it is known where they lie
     */
    private static function length(array $from, array $points): float
    {
        $length = 0.0;
        foreach ($points as $point) {
            [$x, $y, $z] = self::way($from, $point);
            $length += sqrt($x * $x + $y * $y + $z * $z);
            $from = $point;
        }

        return $length;
    }

    /**
     * @param  array<string, float|null>  $from
     * @param  array<string, float|null>  $to
     * @return array{float, float, float} mm; nothing where it is not known where one of them lies
     */
    private static function way(array $from, array $to): array
    {
        return [
            ($to['X'] ?? 0.0) - ($from['X'] ?? $to['X'] ?? 0.0),
            ($to['Y'] ?? 0.0) - ($from['Y'] ?? $to['Y'] ?? 0.0),
            ($to['Z'] ?? 0.0) - ($from['Z'] ?? $to['Z'] ?? 0.0),
        ];
    }

    private function suspect(bool $isFed, bool $isCut, bool $isBelow): void
    {
        if ($this->caps->torch && $this->isOn() && ! $isFed) {
            $this->trouble('torch-travel', Verdict::Danger, 'The torch is on while it travels (G0).');
        }
        if (! $isFed || $this->motion === self::PROBE) {
            return;
        }
        if ($this->feed === null && ! $this->inverse) {
            $this->trouble('no-feed', Verdict::Fails, 'It feeds before a feed is given.');
        }
        $isMill = ! $this->caps->torch && $this->heat === [] && $this->caps->tool !== null;
        if ($isMill && ! $isCut && $isBelow) {
            $this->trouble('off-cut', Verdict::Fails, "It cuts below nought with {$this->caps->tool} off.");
        }
    }

    /**
     * @param  array<string, array{float, float}>  $bounds
     * @param  array<string, float|null>  $point
     */
    private static function widen(array &$bounds, array $point): void
    {
        foreach ($point as $axis => $value) {
            if ($value === null) {
                continue;
            }
            $bounds[$axis] ??= [$value, $value];
            if ($value < $bounds[$axis][0]) {
                $bounds[$axis][0] = $value;
            } elseif ($value > $bounds[$axis][1]) {
                $bounds[$axis][1] = $value;
            }
        }
    }

    /** Once, or as often as it says, over further places. */
    private function drill(Block $block): void
    {
        if (! $this->isOn() && $this->caps->tool !== null) {
            $this->trouble('off-cut', Verdict::Fails, "It cuts below nought with {$this->caps->tool} off.");
        }
        $heights = $this->heights($block);
        if ($heights === null) {
            $this->trouble('cycle', Verdict::Fails, 'A drilling cycle without its height (R) or depth (Z).');

            return;
        }
        $place = $block->only('X', 'Y');
        $times = max(1, min(10_000, (int) ($block->word('L') ?? 1)));
        for ($turn = 0; $turn < $times; $turn++) {
            $this->hole($place, ...$heights);
        }
        $this->motion = self::CYCLE;
    }

    /**
     * By steps its height counts from where it is, and its depth from its height.
     *
     * @return array{float, float, float}|null mm: its height, its depth, where it goes back to
     */
    private function heights(Block $block): ?array
    {
        $this->retract = $block->has('R') ? $block->words['R'] * $this->unit : $this->retract;
        $this->depth = $block->has('Z') ? $block->words['Z'] * $this->unit : $this->depth;
        $begin = $this->at['Z'];
        if ($this->retract === null || $this->depth === null || (! $this->absolute && $begin === null)) {
            return null;
        }
        $height = $this->retract + ($this->absolute ? 0.0 : $begin);
        $depth = $this->depth + ($this->absolute ? 0.0 : $height);

        return [$height, $depth, $this->isFarBack ? max($height, $begin ?? $height) : $height];
    }

    /** Over its place at speed, down to its height, fed to its depth, and back. */
    private function hole(Block $place, float $height, float $depth, float $back): void
    {
        $this->motion = 0;
        if ($place->words !== []) {
            $this->move($place);
        }
        [$unit, $absolute] = [$this->unit, $this->absolute];
        [$this->unit, $this->absolute] = [1.0, true];
        foreach ([[0, $height], [1, $depth], [0, $back]] as [$this->motion, $z]) {
            $this->move(Block::to($z));
        }
        [$this->unit, $this->absolute] = [$unit, $absolute];
    }

    /**
     * @param  array<string, float|null>  $from
     * @param  array<string, float|null>  $to
     */
    private function clock(array $from, array $to, float $length, bool $isFed, float $laid, bool $isArc): void
    {
        if ($length < self::NOTHING) {
            // A retraction or a first place: the filament alone moves.
            $this->times->stop();
            $this->times->wait($this->feed === null ? 0.0 : abs($laid) / ($this->feed / 60), false);

            return;
        }
        $direction = self::direction($from, $to);
        $speed = $isFed ? ($this->feed ?? ($this->inverse ? 1.0 : INF)) * ($this->inverse ? $length : 1.0) : INF;
        $rise = INF;
        foreach (self::AXES as $i => $axis) {
            // An arc may point along each of its axes on the way.
            $share = $isArc ? (float) in_array($axis, $this->plane, true) : abs($direction[$i]);
            if ($share < 1e-6) {
                continue;
            }
            if ($isFed && $this->feed !== null && ! $this->inverse) {
                $this->feeds[$axis] = max($this->feeds[$axis] ?? 0.0, $this->feed * $share);
            }
            $speed = min($speed, ($this->caps->speed[$axis] ?? INF) / $share);
            $rise = min($rise, ($this->caps->acceleration[$axis] ?? INF) / $share);
        }
        $this->times->move($direction, $length, $speed, $rise, $this->isOn());
    }

    /**
     * @param  array<string, float|null>  $from
     * @param  array<string, float|null>  $to
     * @return array{float, float, float} of length one
     */
    private static function direction(array $from, array $to): array
    {
        [$x, $y, $z] = self::way($from, $to);
        $straight = sqrt($x * $x + $y * $y + $z * $z);

        return $straight < self::NOTHING ? [1.0, 0.0, 0.0] : [$x / $straight, $y / $straight, $z / $straight];
    }

    private function finish(): void
    {
        $this->times->stop();
        if ($this->moves === 0) {
            $this->trouble(
                'empty',
                Verdict::Fails,
                'Nothing moves in it: it is no program, or one in other words.',
            );
        }
        if ($this->isOn() && ! $this->ended) {
            $this->trouble('left-on', Verdict::Danger, 'It ends with the tool on, and does not say that it ends.');
        }
    }
}
