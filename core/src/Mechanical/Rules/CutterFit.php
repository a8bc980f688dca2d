<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\OtherPart;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Process;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Mechanical\Cutting;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Materials;

/** M08: cutter, collet and spindle. */
final class CutterFit implements Curable
{
    public function card(): Card
    {
        return new Card(
            'M08',
            'Spindle and cutter',
            'Does the spindle hold this cutter, run it no faster than it may, and have the power for the work?',
            Trade::Mechanical,
            'Chip load v_f/(z·n) and thinning 1/(2√(s(1−s))): geometry; specific cutting energies from memory, common practice',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        if ([...$survey->build->fittedThat(Ability::Spins)] === []) {
            return;
        }
        foreach ($survey->build->fittedThat(Ability::Cuts) as $ref => $fitted) {
            yield new Subject('need', $ref, $fitted->need->role, [
                $ref,
                ...array_keys([...$survey->build->fittedThat(Ability::Spins)]),
            ]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $cutter = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $spindle = self::spindle($survey) ?? $inquiry->lack('a spindle');
        $shank = $inquiry->read($cutter, 'shank', 'd_s');
        $collet = $inquiry->read($spindle, 'collet_largest', 'd_c', Bound::Lowest);
        $inquiry->work(
            'Shank, of what the collet holds',
            'k = d_s / d_c',
            ['d_s' => $shank, 'd_c' => $collet],
            $shank->over($collet),
            '%',
        );
        if ($shank->exceeds($collet)) {
            return $inquiry->conclude(
                Verdict::Fails,
                "A shank of {$shank}; the collet holds {$collet} at most.",
                $inquiry->margin($shank, $collet),
                "{$collet}",
            );
        }
        $most = $inquiry->read($cutter, 'top_speed', 'n_max', Bound::Lowest);
        $lowest = $inquiry->read($spindle, 'lowest_speed', 'n_s');
        $top = $inquiry->read($spindle, 'top_speed', 'n_t');
        if ($most->isBelow($lowest)) {
            return $inquiry->conclude(
                Verdict::Danger,
                "The cutter may turn {$most}; the spindle turns no slower than {$lowest}. It flies apart.",
                $inquiry->margin($lowest, $most),
                "{$most}",
            );
        }
        $at = Quantity::min($most, $top);
        $diameter = $inquiry->tryRead($cutter, 'diameter', 'd');
        $flutes = $inquiry->tryRead($cutter, 'flutes', 'z');
        if ($diameter !== null) {
            $inquiry->work(
                "Speed of its rim at {$at}",
                'v = π × d × n',
                ['d' => $diameter, 'n' => $at],
                Cutting::rim($diameter, $at),
                'm/s',
            );
        }
        if ($flutes !== null) {
            $inquiry->work(
                'Feed for a chip of 0.05 mm',
                'v_f = f_z × z × n',
                ['f_z' => Quantity::of(0.05, 'mm'), 'z' => $flutes, 'n' => $at],
                Quantity::of(
                    Cutting::feed(Quantity::of(0.05, 'mm'), $flutes, $at, Quantity::ratio(0.5))->in('mm/s') * 60,
                    'mm/min',
                ),
                'mm/min',
            );
        }
        if ($inquiry->tryChoice($spindle, 'cooling') === 'own fan') {
            $inquiry->remark(
                'It cools itself with air from outside: a hood must draw the dust off below it without starving it, nor feed it dust.',
            );
        }
        $verdict = Verdict::Holds;
        $says =
            "Held by its collet, and good for {$most}".
            ($most->isBelow($top) ? "; keep the spindle below that: it could turn {$top}." : '.');
        $needed = $this->power($inquiry, $spindle, $at, $top);
        if ($needed !== null) {
            [$asked, $has] = $needed;
            $verdict = $inquiry->band($asked, $has, Quantity::ratio(0.8), Quantity::ratio(1), Verdict::Fails);
            $says .= " The brief's removal asks for {$asked}; the spindle has {$has}.";
        }

        return $inquiry->conclude(
            $most->isBelow($top) ? Verdict::worst($verdict, Verdict::Tight) : $verdict,
            $says,
            $inquiry->margin($at, $most),
            "{$most}, {$collet}",
        );
    }

    public function cures(): array
    {
        return [new OtherPart];
    }

    public function examples(): Examples
    {
        $file = static fn (string $shank): array => Examples::file([
            Examples::part('cutter', 'cutter', [
                'shank' => $shank,
                'top_speed' => '24000 rpm',
                'flutes' => '2',
                'diameter' => '6 mm',
            ]),
            Examples::part('spindle', 'spindle', [
                'collet_largest' => '7 mm',
                'lowest_speed' => '3000 rpm',
                'top_speed' => '12000 rpm',
                'rated_power' => '400 W',
            ]),
        ]);

        return new Examples(static fn (): array => $file('8 mm'), static fn (): array => $file('6 mm'), Verdict::Fails);
    }

    /**
     * @return array{Quantity, Quantity}|null power asked for and there
     */
    private function power(Inquiry $inquiry, Fitted $spindle, Quantity $at, Quantity $top): ?array
    {
        $flow = $inquiry->build->brief->process === Process::Cutting ? $inquiry->build->brief->flow : null;
        $energies = Materials::cuttingEnergies();
        $worst = null;
        foreach ($inquiry->build->workpieces as $piece) {
            foreach ($energies as $material => $energy) {
                if (
                    $piece->material !== null &&
                    str_contains(strtolower($piece->material), strtolower($material)) &&
                    ($worst === null || $energy > $energies[$worst])
                ) {
                    $worst = $material;
                }
            }
        }
        if ($flow === null || $worst === null) {
            return null;
        }
        $inquiry->given('removal rate of the brief', 'Q', $flow, Evidence::Measured, 'brief/flow');
        $asked = $inquiry->work(
            "Power to cut {$worst}",
            'P_c = Q × u',
            ['Q' => $flow],
            Cutting::power($flow, $worst) ?? Quantity::of(0, 'W'),
            'W',
        );

        $rated = $inquiry->read($spindle, 'rated_power', 'P', Bound::Lowest);
        // Below its top speed a spindle keeps its torque, and its power falls with the speed.
        $has = $at->isBelow($top)
            ? $inquiry->work(
                "Power it has at {$at}",
                'P_n = P × n / n_t',
                ['P' => $rated, 'n' => $at, 'n_t' => $top],
                $rated->times($at->over($top)),
                'W',
            )
            : $rated;

        return [$asked, $has];
    }

    private static function spindle(Survey $survey): ?Fitted
    {
        foreach ($survey->build->fittedThat(Ability::Spins) as $spindle) {
            return $spindle;
        }

        return null;
    }
}
