<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\CabinetLosses;
use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Machine\Zone;
use Magpie\Core\Machine\ZoneKind;
use Magpie\Core\Quantity\Quantity;

/** E23: the heat that stays in a cabinet, and the air that carries it off. */
final class CabinetHeat implements Check
{
    /** Rise of the air that control gear is usually given. */
    private const RISE = 10;

    /** What of a fan's free-air flow is left behind a filter and a few slots. */
    private const LEFT = 0.5;

    /** Heat a closed sheet-metal box gives off, W/m²K. */
    private const WALL = 5.5;

    public function card(): Card
    {
        return new Card(
            'E23',
            'Cabinet heat',
            'Does the cabinet get rid of the heat of what stands in it?',
            Trade::Thermal,
            'V = 2.99·P/ΔT in m³/h (air at sea level); half of the free-air flow behind a filter and 5.5 W/m²K through sheet metal: common practice, no source',
            ['holds' => Threshold::share('share of the flow that is there', 1.0)],
            topics: [Topic::Cabinets],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->zones as $zone) {
            if ($zone->kind === ZoneKind::Cabinet) {
                yield new Subject(
                    'zone',
                    $zone->ref,
                    $zone->name,
                    array_values(array_filter([$zone->box, ...$zone->holds])),
                );
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $zone = $inquiry->build->zones[$inquiry->subject->ref];
        [$heat, $scenario, $terms] = CabinetLosses::worst($survey, $zone, $inquiry);
        $inquiry->in($scenario);
        $heat = $inquiry->work(
            'Heat that stays in it',
            'P = '.implode(' + ', array_keys($terms)),
            $terms,
            $heat,
            'W',
        );
        $flow = $this->flow($inquiry, $zone);
        if ($flow === null) {
            return $this->closed($inquiry, $zone, $heat);
        }
        $needed = $inquiry->work(
            'Air it takes for a rise of 10 K',
            'V = 2.99 × P / ΔT',
            ['P' => $heat, 'ΔT' => Quantity::of(self::RISE, 'K')],
            Quantity::of((2.99 * $heat->in('W')) / self::RISE, 'm³/h'),
            'm³/h',
        );
        $there = $inquiry->work(
            'Air that goes through it',
            'V_t = 0.5 × V_free',
            ['V_free' => $flow],
            $flow->times(self::LEFT),
            'm³/h',
        );
        $verdict = $needed->exceeds($flow)
            ? Verdict::Fails
            : ($needed->exceeds($there->times($inquiry->threshold('holds')))
                ? Verdict::Tight
                : Verdict::Holds);
        $inquiry->remark(
            'Filtered inlet low, outlet high, fan blowing in: the pressure inside keeps dust out. Openings sideways, never upwards.',
        );

        return $inquiry->conclude(
            $verdict,
            "{$heat} ask for {$needed}; about {$there} go through.".
                ($verdict === Verdict::Holds ? '' : ' A larger fan, or the supplies outside.'),
            $inquiry->margin($needed, $there),
            "{$there}",
        );
    }

    public function examples(): Examples
    {
        $file = static fn (string $flow): array => Examples::file(
            [
                Examples::part('inlet', 'mains_inlet', []),
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '24 V',
                    'rated_current' => '20 A',
                    'efficiency' => '88 %',
                    'input_voltage' => '90 V to 264 V',
                    'power_factor' => '0.9',
                ]),
                Examples::part('bed', 'heater', ['rated_voltage' => '24 V', 'rated_power' => '240 W']),
                Examples::part('fan', 'fan', [
                    'job' => 'cabinet',
                    'flow' => $flow,
                    'rated_current' => '0 A',
                    'rated_voltage' => '24 V',
                ]),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'inlet.out', 'to' => 'psu.mains'],
                    ['ref' => 'W2', 'from' => 'psu.out', 'to' => 'bed.power'],
                ],
                'zones' => [
                    ['ref' => 'box', 'name' => 'Control cabinet', 'kind' => 'cabinet', 'holds' => ['psu', 'fan']],
                ],
            ],
        );

        return new Examples(
            static fn (): array => $file('8 m³/h'),
            static fn (): array => $file('60 m³/h'),
            Verdict::Fails,
        );
    }

    private function flow(Inquiry $inquiry, Zone $zone): ?Quantity
    {
        $flow = null;
        foreach ($zone->holds as $ref) {
            $fan = $inquiry->build->fitted($ref);
            if (
                $fan?->part->can(Ability::Blows) === true &&
                in_array($inquiry->tryChoice($fan, 'job'), ['cabinet', 'filter'], true)
            ) {
                $one = $inquiry->read($fan, 'flow', 'V_'.$ref, Bound::Lowest)->times($fan->need->quantity);
                $flow = $flow === null ? $one : $flow->plus($one);
            }
        }

        return $flow;
    }

    private function closed(Inquiry $inquiry, Zone $zone, Quantity $heat): Finding
    {
        $box = $zone->box === null ? null : $inquiry->build->fitted($zone->box);
        [$w, $h, $d] = $inquiry->readAll($box ?? $inquiry->lack("the box around {$zone->name}, or a fan in it"), [
            'w' => 'width',
            'h' => 'height',
            'd' => 'depth',
        ]);
        $area = $inquiry->work(
            'Walls, the back left out',
            'A = w·h + 2·w·d + 2·h·d',
            ['w' => $w, 'h' => $h, 'd' => $d],
            $w
                ->times($h)
                ->plus($w->times($d)->times(2))
                ->plus($h->times($d)->times(2)),
            'm²',
        );
        $rise = $inquiry->work(
            'Rise of the air in it',
            'ΔT = P / (5.5 W/m²K × A)',
            ['P' => $heat, 'A' => $area],
            Quantity::of($heat->in('W') / (self::WALL * $area->in('m²')), 'K'),
            'K',
        );
        $verdict = match (true) {
            $rise->exceeds(Quantity::of(2 * self::RISE, 'K')) => Verdict::Fails,
            $rise->exceeds(Quantity::of(self::RISE, 'K')) => Verdict::Tight,
            default => Verdict::Holds,
        };

        return $inquiry->conclude(
            $verdict,
            "No fan: {$heat} through its walls warm the air by {$rise}.".
                ($verdict === Verdict::Holds ? '' : ' A fan and a filter.'),
            $inquiry->margin($rise, Quantity::of(2 * self::RISE, 'K')),
            '10 K, at most 20 K',
        );
    }
}
