<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Mechanical\Cures\MoreBlocks;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Motion\DriveLoad;
use Magpie\Core\Quantity\Quantity;

/** M07: load on the blocks of an axis, their life, and what one failing leaves. */
final class GuideLoad implements Curable
{
    public function card(): Card
    {
        return new Card(
            'M07',
            'Guide load',
            'Do the blocks carry weight, thrust and their lever, with enough to spare?',
            Trade::Mechanical,
            'ISO 14728-1: L10 = (C/P)³ × 100 km; of bearings that roll, ISO 281: (C/P)³ × 10⁶ turns; static safety of 3 with vibration: common practice, no source',
            topics: [Topic::Axes],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->axes as $axis) {
            if (
                ($axis->rail ?? $axis->guides) !== null &&
                ($axis->drive->mass !== null || $axis->drive->carries !== [])
            ) {
                yield Subject::ofAxis($axis, array_values(array_filter([$axis->rail ?? $axis->guides])));
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $axis = $inquiry->build->axes[$inquiry->subject->ref];
        $rail =
            $inquiry->build->fitted($axis->rail ?? ($axis->guides ?? '')) ?? $inquiry->lack("a rail for {$axis->name}");
        $motion = AxisMotion::of($inquiry->survey, $axis);
        $drive = $axis->drive;
        $mass = $motion->mass($inquiry);
        $incline = $motion->given($inquiry, 'incline', 'incline', 'θ', $drive->incline);
        $lever = $motion->given($inquiry, 'lever', 'height of load and force above the guides', 'h', $drive->lever);
        $acceleration = $motion->given($inquiry, 'acceleration', 'acceleration', 'a', $drive->acceleration);
        $force = $motion->given($inquiry, 'force', 'process force (0 N where there is none)', 'F_p', $drive->force);
        // Rollers are counted as they are; of rails, the blocks on each.
        $rollers = $axis->rail === null;
        $onOne = $rollers ? $rail->need->quantity : $axis->blocks;
        $blocks = $rollers ? $onOne : $onOne * $rail->need->quantity;
        $g = Quantity::of(DriveLoad::G, 'm/s²');
        $weight = $mass->times($g)->to('N');
        $along = $mass->times($acceleration)->plus($force)->plus($weight->times(sin($incline->in('rad'))));
        $flat = $weight->times(abs(cos($incline->in('rad'))))->over($blocks);
        $symbols = ['m' => $mass, 'a' => $acceleration, 'F_p' => $force, 'h' => $lever];
        if ($onOne > 1) {
            $spread = $motion->given($inquiry, 'spread', 'distance of the outer blocks', 'l', $drive->spread);
            $load = $inquiry->work(
                'Load on the worst block',
                'P = m·g·cosθ / n + (m·a + m·g·sinθ + F_p) × h / (l × n/2)',
                $symbols + ['l' => $spread, 'n' => Quantity::ratio($blocks)],
                $flat->plus(
                    $along
                        ->times($lever)
                        ->over($spread)
                        ->over($blocks / 2),
                ),
                'N',
            );
        } else {
            $inquiry->remark(
                'One block a rail: it takes the tilting moment on its own balls, which is not judged here.',
            );
            $load = $inquiry->work(
                'Load on the worst block',
                'P = m·g·cosθ / n',
                ['m' => $mass, 'n' => Quantity::ratio($blocks)],
                $flat,
                'N',
            );
            $inquiry->miss(
                "moment rating of the one block on each rail of {$axis->name}; two blocks a rail would settle it",
            );
        }
        if ($drive->shock !== null) {
            $shock = $motion->given($inquiry, 'shock', 'shock', 'f_w', $drive->shock);
            $load = $inquiry->work(
                'Load with its shocks',
                'P_w = P × f_w',
                ['P' => $load, 'f_w' => $shock],
                $load->times($shock),
                'N',
            );
        }
        [$static, $dynamic] = $inquiry->readAll($rail, ['C_0' => 'static_load', 'C' => 'dynamic_load'], Bound::Lowest);
        $safety = $inquiry->work(
            'Static safety',
            'f = C_0 / P',
            ['C_0' => $static, 'P' => $load],
            $static->over($load),
        );
        $this->life($inquiry, $rail, $rollers, $dynamic, $load);
        if ($onOne > 1) {
            // The others on its rail take its whole share: of a pair, the survivor.
            $left = $inquiry->work(
                'Static safety with one block lost',
                'f₁ = f × (n_r − 1) / n_r',
                ['f' => $safety, 'n_r' => Quantity::ratio($onOne)],
                $safety->times(($onOne - 1) / $onOne),
            );
            if ($left->isBelow(Quantity::ratio(1))) {
                $inquiry->remark('One block lost, and the others give way.');
            }
        }
        if (! $rollers && $rail->need->quantity > 2) {
            $inquiry->remark('More than two rails over-constrain: they bind unless they are true.');
        }
        $verdict = match (true) {
            $safety->isBelow(Quantity::ratio(1.5)) => Verdict::Fails,
            $safety->isBelow(Quantity::ratio(3)) => Verdict::Tight,
            default => Verdict::Holds,
        };

        return $inquiry->conclude(
            $verdict,
            "{$load} on the worst of {$blocks} ".
                ($rollers ? 'bearings' : 'blocks').
                ": {$safety} times below what it stands at rest (3 with vibration).",
            $inquiry->margin(Quantity::ratio(3), $safety),
            'static safety of 3',
        );
    }

    /** Travel until one in ten is worn out: of a block by its rail's rating, of a roller by its turns. */
    private function life(Inquiry $inquiry, Fitted $rail, bool $rollers, Quantity $dynamic, Quantity $load): void
    {
        $times = ($dynamic->in('N') / max(1e-6, $load->in('N'))) ** 3;
        if (! $rollers) {
            $life = $inquiry->work(
                'Travel until one block in ten is worn out',
                'L_10 = (C / P)³ × 100 km',
                ['C' => $dynamic, 'P' => $load],
                Quantity::of($times * 100, 'm')->times(1000),
                'km',
            );
            $inquiry->figure('life', 'travel until one block in ten is worn out', $life);

            return;
        }
        $across = $inquiry->tryRead($rail, 'outer_diameter', 'D', Bound::Lowest);
        if ($across === null) {
            return;
        }
        $life = $inquiry->work(
            'Travel until one bearing in ten is worn out',
            'L_10 = (C / P)³ × 10⁶ × π × D',
            ['C' => $dynamic, 'P' => $load, 'D' => $across],
            $across->times($times * 1e6 * M_PI),
            'km',
        );
        $inquiry->figure('life', 'travel until one bearing in ten is worn out', $life);
    }

    public function cures(): array
    {
        return [new MoreBlocks];
    }

    public function examples(): Examples
    {
        $file = static fn (string $static): array => Examples::file(
            [Examples::part('rail', 'linear_rail', ['static_load' => $static, 'dynamic_load' => '5000 N'])],
            [
                'axes' => [
                    [
                        'ref' => 'x',
                        'name' => 'X',
                        'along' => 'x',
                        'rail' => 'rail',
                        'blocks' => 2,
                        'drive' => [
                            'mass' => '12 kg',
                            'force' => '200 N',
                            'acceleration' => '2 m/s²',
                            'incline' => '0 °',
                            'lever' => '80 mm',
                            'spread' => '120 mm',
                            'evidence' => 'measured',
                        ],
                    ],
                ],
            ],
        );

        return new Examples(
            static fn (): array => $file('200 N'),
            static fn (): array => $file('8000 N'),
            Verdict::Fails,
        );
    }
}
