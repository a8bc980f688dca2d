<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Mechanical\MatedParts;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Tables;

/** M09: shafts, bores and faces that meet. */
final class Interfaces implements Check
{
    public function card(): Card
    {
        return new Card(
            'M09',
            'Interface',
            'Do shaft and bore, face and holes, coupling and torque fit each other?',
            Trade::Mechanical,
            'NEMA ICS 16 for hole spacing and pilot of motor frames (from memory); coupling at twice the torque of its motor: common practice, no source',
            topics: [Topic::Joints],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach (MatedParts::all($survey->build, self::meet(...)) as $met) {
            [$one, $other] = $met->mate->between;
            yield new Subject(
                'mate',
                $met->mate->ref,
                "{$met->mate->kind}: {$survey->build->roleOf($one)} to {$survey->build->roleOf($other)}",
                $met->mate->between,
            );
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $met =
            MatedParts::of($inquiry->build, $inquiry->build->mates[$inquiry->subject->ref], self::meet(...)) ??
            $inquiry->lack('two parts that meet');

        return match (self::kind($met->first, $met->second)) {
            'face' => $this->face($inquiry, $met->first, $met->second),
            'coupling' => $this->coupling($inquiry, $met->first, $met->second),
            default => $this->bore($inquiry, $met->first, $met->second),
        };
    }

    public function examples(): Examples
    {
        $file = static fn (string $bore): array => Examples::file(
            [
                Examples::part('motor', 'stepper_motor', [
                    'shaft_diameter' => '6.35 mm',
                    'holding_torque' => '1.2 N m',
                ]),
                Examples::part('coupling', 'coupling', [
                    'bore_a' => $bore,
                    'bore_b' => '10 mm',
                    'rated_torque' => '5 N m',
                ]),
            ],
            ['mates' => [['ref' => 'm', 'kind' => 'shaft', 'between' => ['motor', 'coupling']]]],
        );

        return new Examples(
            static fn (): array => $file('8 mm'),
            static fn (): array => $file('6.35 mm'),
            Verdict::Fails,
        );
    }

    /**
     * How a shaft or motor meets the other part: at its face, in a coupling, in a bore; null when these two do not meet
     * so.
     */
    private static function kind(Fitted $a, Fitted $b): ?string
    {
        $shaft = $a->part->canAny(Ability::Drives, Ability::HasLead);

        return match (true) {
            $shaft && $b->part->can(Ability::JoinsShafts) => 'coupling',
            $shaft && $b->part->family->field('bore') !== null => 'bore',
            $a->part->can(Ability::Steps) && $b->part->family->field('hole_spacing') !== null => 'face',
            default => null,
        };
    }

    private static function meet(Fitted $a, Fitted $b): bool
    {
        return self::kind($a, $b) !== null;
    }

    private function shaft(Inquiry $inquiry, Fitted $fitted): Quantity
    {
        return $inquiry->read($fitted, $fitted->part->can(Ability::HasLead) ? 'end_diameter' : 'shaft_diameter', 'd_s');
    }

    private function bore(Inquiry $inquiry, Fitted $shaft, Fitted $part): Finding
    {
        return $this->fits(
            $inquiry,
            $this->shaft($inquiry, $shaft),
            $inquiry->read($part, 'bore', 'd_b'),
            $shaft,
            $part,
        );
    }

    private function coupling(Inquiry $inquiry, Fitted $shaft, Fitted $coupling): Finding
    {
        $diameter = $this->shaft($inquiry, $shaft);
        [$a, $b] = $inquiry->readAll($coupling, ['d_a' => 'bore_a', 'd_b' => 'bore_b']);
        $bore = abs($a->in('mm') - $diameter->in('mm')) <= abs($b->in('mm') - $diameter->in('mm')) ? $a : $b;
        $fit = $this->fits($inquiry, $diameter, $bore, $shaft, $coupling);
        if ($fit->verdict === Verdict::Fails || $shaft->part->can(Ability::HasLead)) {
            return $fit;
        }
        $key = $shaft->part->can(Ability::Steps) ? 'holding_torque' : 'peak_torque';
        $torque = $inquiry->read($shaft, $key, 'T_h', Bound::Highest);
        $rated = $inquiry->read($coupling, 'rated_torque', 'T_c', Bound::Lowest);
        $share = $inquiry->work(
            'Torque of the motor, of what the coupling stands',
            'k = T_h / T_c',
            ['T_h' => $torque, 'T_c' => $rated],
            $torque->over($rated),
            '%',
        );

        return $inquiry->conclude(
            $inquiry->band($torque, $rated, Quantity::ratio(0.5), Quantity::ratio(1), Verdict::Fails),
            "{$diameter} in {$bore}; {$torque} on a coupling for {$rated} ({$share}; half is usual).",
            $inquiry->margin($torque, $rated),
            "{$bore}, half of {$rated}",
        );
    }

    private function fits(Inquiry $inquiry, Quantity $shaft, Quantity $bore, Fitted $a, Fitted $b): Finding
    {
        $play = $inquiry->work('Play', 's = d_b − d_s', ['d_b' => $bore, 'd_s' => $shaft], $bore->minus($shaft), 'mm');
        if (abs($play->in('mm')) > 0.05) {
            return $inquiry->conclude(
                Verdict::Fails,
                "A shaft of {$shaft} ({$a->need->role}) in a bore of {$bore} ({$b->need->role}): ".
                    ($play->isPositive() ? 'it runs out and slips.' : 'it does not go in.'),
                null,
                "{$shaft}",
            );
        }

        return $inquiry->conclude(Verdict::Holds, "{$shaft} in {$bore}.", null, "{$shaft}");
    }

    private function face(Inquiry $inquiry, Fitted $motor, Fitted $plate): Finding
    {
        $frame = $inquiry->tryChoice($motor, 'frame') ?? $inquiry->lack("frame of {$motor->need->role}");
        /** @var array<string, array{holes: float, pilot: float|null}> $frames */
        $frames = Tables::named('motor_frames');
        [$spacing, $pilot] = $inquiry->readAll($plate, ['s' => 'hole_spacing', 'd' => 'pilot']);
        $wanted = Quantity::of($frames[$frame]['holes'], 'mm');
        $inquiry->work("Holes of a frame {$frame}", 's_f', ['s_f' => $wanted, 's' => $spacing], $wanted, 'mm');
        if (abs($spacing->in('mm') - $wanted->in('mm')) > 0.3) {
            return $inquiry->conclude(
                Verdict::Fails,
                "Holes {$spacing} apart; a frame {$frame} has {$wanted}.",
                null,
                "{$wanted}",
            );
        }
        $nose = $frames[$frame]['pilot'];
        if ($nose !== null && $pilot->in('mm') < $nose) {
            return $inquiry->conclude(
                Verdict::Fails,
                "A bore of {$pilot}; the pilot of a frame {$frame} is {$nose} mm.",
                null,
                "{$nose} mm",
            );
        }

        return $inquiry->conclude(
            Verdict::Holds,
            "A frame {$frame} on holes {$spacing} apart, its pilot in {$pilot}.",
            null,
            "{$wanted}",
        );
    }
}
