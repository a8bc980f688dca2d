<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Input;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Scenario;
use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;

/**
 * What a scenario takes from the wall on average: each load by the part of the time it is on, over its supply's
 * efficiency.
 */
final readonly class EnergyUse
{
    /**
     * @param  list<Input>  $inputs
     * @param  list<string>  $missing
     */
    private function __construct(public Quantity $average, public array $inputs, public array $missing)
    {
    }

    public static function of(Circuits $circuits, Scenario $scenario): self
    {
        $flow = $circuits->in($scenario);
        $topology = $circuits->topology;
        $total = Quantity::of(0, 'W');
        $inputs = $missing = [];
        $found = [];
        foreach ($topology->mains() as $node) {
            $found[] = self::given($circuits, $flow, [$node]);
        }
        foreach ($topology->build()->fittedThat(Ability::HasOwnPlug) as $fitted) {
            [$given, $rests, $unknown] = self::given($circuits, $flow, $topology->nodesOf($fitted->need->ref));
            [$factor, $more, $unsaid] = $circuits->losses($fitted, false);
            $found[] = [$given->over($factor), [...$rests, ...$more], [...$unknown, ...$unsaid]];
        }
        foreach ($found as [$given, $rests, $unknown]) {
            $total = $total->plus($given);
            array_push($inputs, ...$rests);
            array_push($missing, ...$unknown);
        }
        if ($found === []) {
            $missing[] = 'a mains inlet that feeds the machine';
        }

        return new self($total, $inputs, array_values(array_unique($missing)));
    }

    /**
     * What sources give on average, with what is lost on the way.
     *
     * @param  iterable<int>  $nodes
     * @return array{Quantity, list<Input>, list<string>} it, what it rests on, what is not known
     */
    private static function given(Circuits $circuits, Flow $flow, iterable $nodes): array
    {
        $total = Quantity::of(0, 'W');
        $inputs = $missing = [];
        foreach ($nodes as $node) {
            if ($flow->whyUnsolved($node) !== null) {
                $missing[] = $flow->whyUnsolved($node);
            }
            $ofNode = Quantity::of(0, 'W');
            foreach ($flow->demands($node) as $demand) {
                array_push($inputs, ...$demand->inputs);
                array_push($missing, ...$demand->missing);
                $ofNode = $ofNode->plus(self::average($circuits, $flow, $demand));
            }
            $total = $total->plus($ofNode->times(self::onTheWay($circuits, $flow, $node)));
        }

        return [$total, $inputs, $missing];
    }

    public function cost(Quantity $time, Money $tariff): Money
    {
        return $tariff->times(Quantity::ratio($this->average->times($time)->in('kW h')));
    }

    /** What a source gives for each watt that arrives, with all of it on: the rest warms the leads. At least one. */
    private static function onTheWay(Circuits $circuits, Flow $flow, int $source): float
    {
        $held = $circuits->heldBy($source);
        $delivered = $flow->delivered($source);
        $arrives = 0.0;
        foreach ($flow->demands($source) as $demand) {
            $arrives += ($flow->volts($demand->node)?->in('V') ?? 0.0) * ($flow->taken($demand)?->in('A') ?? 0.0);
        }
        $gives = $held === null || $delivered === null ? 0.0 : $held->in('V') * $delivered->in('A');

        return $arrives <= 0.0 ? 1.0 : max(1.0, $gives / $arrives);
    }

    private static function average(Circuits $circuits, Flow $flow, Demand $demand): Quantity
    {
        $nothing = Quantity::of(0, 'W');
        if ($circuits->topology->shapes[$demand->node]->draw === Draw::Converter) {
            [$fitted] = $circuits->topology->at($demand->node);
            $out = $nothing;
            foreach ($fitted->part->ports as $source) {
                $node = $circuits->topology->node("{$fitted->need->ref}.{$source->name}");
                $ofNode = $nothing;
                foreach ($node !== null && $source->kind === PortKind::Source ? $flow->demands($node) : [] as $inner) {
                    $ofNode = $ofNode->plus(self::average($circuits, $flow, $inner));
                }
                $out = $out->plus($node === null ? $ofNode : $ofNode->times(self::onTheWay($circuits, $flow, $node)));
            }
            $efficiency = $fitted->part->spec('efficiency')?->lowest();

            return $efficiency === null || ! $efficiency->isPositive() ? $out : $out->over($efficiency);
        }
        $current = $flow->taken($demand);
        $volts = $flow->volts($demand->node);
        if ($current === null || $volts === null) {
            return $nothing;
        }

        // A heater is on for its share of the time; the share of any other load is in its current already.
        return $volts->times($demand->resistance === null ? $current : $current->times($demand->share))->to('W');
    }
}
