<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Input;
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
        $inputs = [];
        $missing = [];
        $sources = 0;
        foreach ($topology->mains() as $node) {
            $sources++;
            if ($flow->whyUnsolved($node) !== null) {
                $missing[] = $flow->whyUnsolved($node);
            }
            foreach ($flow->demands($node) as $demand) {
                array_push($inputs, ...$demand->inputs);
                array_push($missing, ...$demand->missing);
                $total = $total->plus(self::average($circuits, $flow, $demand));
            }
        }
        if ($sources === 0) {
            $missing[] = 'a mains inlet that feeds the machine';
        }

        return new self($total, $inputs, array_values(array_unique($missing)));
    }

    public function cost(Quantity $time, Money $tariff): Money
    {
        return $tariff->times(Quantity::ratio($this->average->times($time)->in('kW h')));
    }

    private static function average(Circuits $circuits, Flow $flow, Demand $demand): Quantity
    {
        $nothing = Quantity::of(0, 'W');
        if ($circuits->topology->shapes[$demand->node]->draw === Draw::Converter) {
            [$fitted] = $circuits->topology->at($demand->node);
            $out = $nothing;
            foreach ($fitted->part->ports as $source) {
                $node = $circuits->topology->node("{$fitted->need->ref}.{$source->name}");
                foreach ($node !== null && $source->kind === PortKind::Source ? $flow->demands($node) : [] as $inner) {
                    $out = $out->plus(self::average($circuits, $flow, $inner));
                }
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
