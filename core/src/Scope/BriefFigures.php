<?php

declare(strict_types=1);

namespace Magpie\Core\Scope;

use Magpie\Core\Inspection\WorkingStep;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Brief;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Craft;
use Magpie\Core\Machine\Experience;
use Magpie\Core\Machine\LeadEnd;
use Magpie\Core\Machine\Process;
use Magpie\Core\Machine\Termination;
use Magpie\Core\Quantity\Quantity;

/**
 * What follows from a brief before any part is chosen, each with its working: envelope, plates, mains, output, skills
 * and tools. What a figure lacks is named; nothing is guessed in its place.
 */
final readonly class BriefFigures
{
    /** Shaft watts to apparent power of a single-phase spindle drive. Common practice, no source. */
    private const MOTOR = 0.75;

    private const DRIVE = 0.95;

    private const POWER_FACTOR = 0.65;

    private Envelope $envelope;

    public function __construct(private Build $build)
    {
        $this->envelope = new Envelope($build);
    }

    /**
     * @return list<array{key: string, title: string, says: string, working: list<array<string, mixed>>,
     *     missing: list<string>}>
     */
    public function toArray(): array
    {
        $printing = $this->build->brief->process === Process::Printing;

        return array_values(
            array_filter([
                $this->envelope(),
                $printing ? $this->plates() : null,
                $this->mainsHeater(),
                $printing ? null : $this->spindle(),
                $this->output(),
                $this->skills(),
                $this->tools(),
            ]),
        );
    }

    /**
     * @return array{key: string, title: string, says: string, working: list<array<string, mixed>>,
     *     missing: list<string>}
     */
    private function envelope(): array
    {
        $steps = $missing = [];
        foreach (['x' => 'Along', 'y' => 'Across', 'z' => 'Above'] as $along => $label) {
            $size = $this->envelope->sizes[$along];
            $piece = $this->envelope->deciding[$along];
            if ($size === null || $piece === null) {
                $missing[] = "size of a workpiece along {$along}";

                continue;
            }
            $times = $along === 'z' ? 1 : 2;
            $bare = $size->minus($this->envelope->margin->times($times))->to('mm');
            $steps[] = new WorkingStep(
                "{$label}, for {$piece->name}",
                $times === 2 ? 'L = l + 2 × m' : 'L = l + m',
                ['l' => $bare, 'm' => $this->envelope->margin],
                $size->to('mm'),
            );
        }
        $sizes = array_map(
            static fn (?Quantity $q): string => $q === null ? '?' : (string) $q->to('mm'),
            $this->envelope->sizes,
        );

        return self::figure(
            'envelope',
            'Smallest envelope',
            $missing === []
                ? implode(' × ', $sizes).' of travel hold every workpiece with its margins.'
                : 'The travel that holds every workpiece.',
            $steps,
            $missing,
        );
    }

    /**
     * @return array{key: string, title: string, says: string, working: list<array<string, mixed>>,
     *     missing: list<string>}
     */
    private function plates(): array
    {
        $steps = $sheet = $heater = [];
        $side = Quantity::of(10, 'mm');
        [$x, $y] = [$this->envelope->workArea('x'), $this->envelope->workArea('y')];
        if ($x === null || $y === null) {
            return self::figure(
                'plates',
                'Sheet and heater',
                'Sizes of sheet and heater.',
                [],
                ['the work area, or a workpiece'],
            );
        }
        foreach (['x' => $x, 'y' => $y] as $along => $area) {
            $sheet[] = $area->plus($side->times(2))->to('mm');
            $heater[] = $area->minus($side->times(2))->to('mm');
            $steps[] = new WorkingStep(
                "Sheet along {$along}",
                'w = a + 2 × s',
                ['a' => $area->to('mm'), 's' => $side],
                end($sheet),
            );
            $steps[] = new WorkingStep(
                "Heater along {$along}",
                'w = a − 2 × s',
                ['a' => $area->to('mm'), 's' => $side],
                end($heater),
            );
        }
        $field = $heater[0]->times($heater[1])->to('m²');
        // T02: 0.4 to 0.6 W/cm² on low voltage.
        [$least, $most] = [
            Quantity::of(round($field->in('m²') * 4000), 'W'),
            Quantity::of(round($field->in('m²') * 6000), 'W'),
        ];
        $steps[] = new WorkingStep('Usual on low voltage', 'P = A × 0.4 to 0.6 W/cm²', ['A' => $field], $most);

        return self::figure(
            'plates',
            'Sheet and heater',
            "Sheet {$sheet[0]} × {$sheet[1]}, heater {$heater[0]} × {$heater[1]}; {$least} to {$most} are usual on low voltage.",
            $steps,
            [],
        );
    }

    /**
     * @return array{key: string, title: string, says: string, working: list<array<string, mixed>>,
     *     missing: list<string>}
     */
    private function mainsHeater(): array
    {
        $volts = $this->build->site->mainsVoltage;
        if ($volts === null) {
            return self::figure(
                'mains-heater',
                'A mains heater here',
                'Which mains voltage a heater must be made for.',
                [],
                ['mains voltage of the site'],
            );
        }
        $other = $volts->exceeds(Quantity::of(160, 'V')) ? Quantity::of(120, 'V') : Quantity::of(230, 'V');
        $share = $volts->over($other);
        $steps = [
            new WorkingStep(
                "One made for {$other}, here",
                'k = (V / V_r)²',
                ['V' => $volts, 'V_r' => $other],
                $share->times($share)->to('%'),
            ),
        ];
        $end = $volts->exceeds($other) ? 'it burns out, and may start a fire' : 'it hardly warms';

        return self::figure(
            'mains-heater',
            'A mains heater here',
            "It must be made for {$volts}: one made for {$other} would give {$steps[0]->result} of its power, so {$end}. Mains work is for somebody practised, and local code decides.",
            $steps,
            [],
        );
    }

    /**
     * @return array{key: string, title: string, says: string, working: list<array<string, mixed>>,
     *     missing: list<string>}
     */
    private function spindle(): array
    {
        $site = $this->build->site;
        $power = $this->build->brief->spindlePower;
        $missing = array_keys(
            array_filter(
                [
                    'power of the spindle' => $power,
                    'mains voltage of the site' => $site->mainsVoltage,
                    'rating of the outlet' => $site->outlet,
                ],
                static fn (?Quantity $q): bool => $q?->isPositive() !== true,
            ),
        );
        if ($missing !== [] || $power === null || $site->mainsVoltage === null || $site->outlet === null) {
            return self::figure(
                'spindle',
                'Spindle and circuit',
                'Whether a spindle needs a circuit of its own.',
                [],
                $missing,
            );
        }
        // What is chosen already says it better than what is usual: then it is what the mains check reckons with.
        $motor = $this->chosen(Ability::Spins, 'efficiency') ?? Quantity::ratio(self::MOTOR);
        $drive = $this->chosen(Ability::SetsSpeed, 'efficiency') ?? Quantity::ratio(self::DRIVE);
        $factor = $this->chosen(Ability::SetsSpeed, 'power_factor') ?? Quantity::ratio(self::POWER_FACTOR);
        $apparent = $power->over($motor)->over($drive)->over($factor)->to('W');
        $amps = $apparent->over($site->mainsVoltage)->to('A');
        $limit = $site->outlet->times(0.8)->to('A');
        $left = $limit->minus($site->otherLoad ?? Quantity::of(0, 'A'))->to('A');
        $steps = [
            new WorkingStep(
                'Apparent power of motor and single-phase drive',
                'S = P / (η_m × η_d × λ)',
                [
                    'P' => $power,
                    'η_m' => $motor,
                    'η_d' => $drive,
                    'λ' => $factor,
                ],
                $apparent,
            ),
            new WorkingStep('Current', 'I = S / V', ['S' => $apparent, 'V' => $site->mainsVoltage], $amps),
            new WorkingStep('Continuous use of the outlet', 'I_max = 0.8 × I_o', ['I_o' => $site->outlet], $limit),
        ];
        if ($site->otherLoad !== null) {
            $steps[] = new WorkingStep(
                'Left by what else runs on it',
                'I_left = I_max − I_other',
                ['I_max' => $limit, 'I_other' => $site->otherLoad],
                $left,
            );
        }
        $says = match (true) {
            $amps->exceeds($limit) => "A {$power} spindle takes about {$amps} here, more than this outlet gives for long ({$limit}): it needs a larger circuit, put in by a licensed electrician.",
            $amps->exceeds($left) => "A {$power} spindle takes about {$amps}; beside what else runs only {$left} are left: it needs a circuit of its own.",
            $site->otherLoad === null => "A {$power} spindle takes about {$amps} of the {$limit} this outlet gives for long: it carries it while nothing else runs on its circuit.",
            default => "A {$power} spindle takes about {$amps} of the {$left} that are left: this circuit carries it.",
        };

        return self::figure(
            'spindle',
            'Spindle and circuit',
            $says,
            $steps,
            $site->otherLoad === null ? ['what else runs on this circuit (0 A when nothing does)'] : [],
        );
    }

    /** What the one part that can do that says; null when there is none, or several. */
    private function chosen(Ability $what, string $key): ?Quantity
    {
        $fitted = array_values([...$this->build->fittedThat($what)]);
        $value = count($fitted) === 1 ? $fitted[0]->part->spec($key)?->nominal() : null;

        return $value?->isPositive() === true ? $value : null;
    }

    /**
     * @return array{key: string, title: string, says: string, working: list<array<string, mixed>>,
     *     missing: list<string>}
     */
    private function output(): array
    {
        $brief = $this->build->brief;
        $missing = array_keys(
            array_filter(
                [
                    $brief->process === Process::Printing ? 'flow of the hot end' : 'removal rate' => $brief->flow,
                    'share of its hours in which it works' => $brief->duty,
                    'hours a week it may run' => $brief->weekly,
                ],
                static fn (?Quantity $q): bool => $q === null || ! $q->isPositive(),
            ),
        );
        $volume = Quantity::of(0, 'cm³');
        $counted = 0;
        $steps = [];
        foreach ($this->build->workpieces as $piece) {
            if ($piece->perWeek !== null && $piece->removed !== null) {
                $week = $piece->removed->times($piece->perWeek)->to('cm³');
                $steps[] = new WorkingStep(
                    "{$piece->name}, {$piece->perWeek} a week",
                    'V = n × v',
                    ['n' => Quantity::ratio($piece->perWeek), 'v' => $piece->removed],
                    $week,
                );
                $volume = $volume->plus($week);
                $counted++;
            } elseif ($piece->perWeek !== null) {
                $missing[] = "volume of one {$piece->name}";
            }
        }
        if ($counted === 0) {
            $missing[] = 'pieces a week and their volume';
        }
        if ($missing !== [] || $brief->flow === null || $brief->duty === null || $brief->weekly === null) {
            return self::figure(
                'output',
                'Output',
                'How long a week\'s work takes, and how many machines that is.',
                $steps,
                $missing,
            );
        }
        $rate = $brief->flow->times($brief->duty);
        $hours = $volume->over($rate)->to('h');
        $machines = (int) ceil($hours->over($brief->weekly)->in('') - 1e-9);
        $steps[] = new WorkingStep(
            'Hours a week',
            't = V / (q × k)',
            ['V' => $volume, 'q' => $brief->flow, 'k' => $brief->duty],
            $hours,
        );
        $steps[] = new WorkingStep(
            'Machines',
            'n = t / t_w',
            ['t' => $hours, 't_w' => $brief->weekly],
            Quantity::ratio(round($hours->over($brief->weekly)->in(''), 3)),
        );

        return self::figure(
            'output',
            'Output',
            "A week's work is {$hours} of machine time; at {$brief->weekly} a week that takes ".
                ($machines === 1 ? 'one machine.' : "{$machines} machines like this."),
            $steps,
            [],
        );
    }

    /**
     * @return array{key: string, title: string, says: string, working: list<array<string, mixed>>,
     *     missing: list<string>}
     */
    private function skills(): array
    {
        $wanted = $this->tradesWanted();
        $short = $missing = $steps = [];
        foreach ($wanted as $trade => $why) {
            $has = $this->build->brief->experience[$trade] ?? null;
            $steps[] = new WorkingStep(ucfirst($trade).": {$why}; yours: ".($has->value ?? 'not said'));
            if ($has === null) {
                $missing[] = "your experience in {$trade}";
            } elseif ($has === Experience::None || ($trade === 'mains' && $has !== Experience::Practised)) {
                $short[] = $trade;
            }
        }
        $mains = ! in_array('mains', $short, true)
            ? ''
            : ' '.
                ($this->build->brief->helper === null
                    ? 'Mains work is not for practising on: name a helper or a licensed electrician.'
                    : "{$this->build->brief->helper} helps with the mains.");
        $others = array_values(array_diff($short, ['mains']));
        $says = match (true) {
            $wanted === [] => 'Nothing in the build asks for a trade yet.',
            $short === [] && $missing === [] => 'You have what the build asks for.',
            $short === [] => 'What the build asks of your hands.',
            default => trim(
                ($others === [] ? '' : 'New to you: '.implode(', ', $others).'; practise on scrap first.').$mains,
            ),
        };

        return self::figure('skills', 'Skills', $says, $steps, $missing);
    }

    /**
     * @return array{key: string, title: string, says: string, working: list<array<string, mixed>>,
     *     missing: list<string>}
     */
    private function tools(): array
    {
        $lacking = $steps = $known = [];
        foreach ($this->build->needs as $need) {
            if ($need->family === 'tool') {
                $known[] = mb_strtolower($need->role);
                $steps[] = new WorkingStep(
                    $need->role.($need->owned >= $need->quantity ? ': owned' : ': to be bought or borrowed'),
                );
                if ($need->owned < $need->quantity) {
                    $lacking[] = $need->role;
                }
            }
        }
        foreach ($this->build->steps as $step) {
            foreach ($step->tools as $tool) {
                if (! in_array(mb_strtolower($tool), $known, true)) {
                    $known[] = mb_strtolower($tool);
                    $steps[] = new WorkingStep("{$tool}: step \"{$step->title}\" asks for it, and no need names it");
                    $lacking[] = $tool;
                }
            }
        }
        $says =
            $known === []
                ? 'No tool is named in the build yet.'
                : ($lacking === []
                    ? 'Every tool that is named is there.'
                    : 'Still to find: '.
                        implode(', ', array_slice($lacking, 0, 6)).
                        (count($lacking) > 6 ? ' and '.(count($lacking) - 6).' more' : '').
                        '.');

        return self::figure('tools', 'Tools', $says, $steps, []);
    }

    /**
     * @return array<string, string> trade → what in the build asks for it
     */
    private function tradesWanted(): array
    {
        $wanted = [];
        $families = array_map(static fn ($n) => $n->family, $this->build->needs);
        $crimped = array_filter(
            $this->build->leads,
            static fn ($l): bool => array_filter(
                $l->ends,
                static fn (LeadEnd $e): bool => $e->contact !== null ||
                    in_array(
                        $e->termination,
                        [Termination::Ferrule, Termination::Crimp, Termination::Fork, Termination::Ring],
                        true,
                    ),
            ) !== [],
        );
        $soldered = array_filter(
            $this->build->leads,
            static fn ($l): bool => array_filter(
                $l->ends,
                static fn (LeadEnd $e): bool => $e->termination === Termination::Soldered,
            ) !== [],
        );
        if ($this->build->mates !== []) {
            $wanted['fitting'] = count($this->build->mates).' joints to put together';
        }
        if ($crimped !== []) {
            $wanted['crimping'] = count($crimped).' leads with crimped ends';
        }
        if ($soldered !== []) {
            $wanted['soldering'] = count($soldered).' leads with soldered ends';
        }
        if (in_array('mains_inlet', $families, true)) {
            $wanted['mains'] = 'a mains inlet to wire';
        } elseif (array_filter($this->build->leads, $this->build->isMains(...)) !== []) {
            $wanted['mains'] = 'leads on mains';
        }
        if (in_array('printed_part', $families, true)) {
            $wanted['printing'] = 'parts to print';
        }
        if (in_array('controller_board', $families, true)) {
            $wanted['software'] = 'a controller to set up';
        }

        return array_intersect_key($wanted, array_flip(Craft::words()));
    }

    /**
     * @param  list<WorkingStep>  $working
     * @param  list<string>  $missing
     * @return array{key: string, title: string, says: string, working: list<array<string, mixed>>,
     *     missing: list<string>}
     */
    private static function figure(string $key, string $title, string $says, array $working, array $missing): array
    {
        return [
            'key' => $key,
            'title' => $title,
            'says' => $says,
            'working' => array_map(static fn (WorkingStep $s): array => $s->toArray(), $working),
            'missing' => $missing,
        ];
    }
}
