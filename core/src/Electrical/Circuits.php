<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Carried;
use Magpie\Core\Inspection\CarriedOver;
use Magpie\Core\Inspection\Input;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Differences;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Reads;
use Magpie\Core\Machine\Scenario;
use Magpie\Core\Machine\Stranding;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Conductors;

/**
 * The power circuits of a build, solved once per scenario.
 */
final class Circuits implements Carried
{
    /** The ref of the scenario that is always there. */
    public const ALL = 'everything-on';

    public readonly Topology $topology;

    /** @var list<Scenario>|null */
    private ?array $scenarios = null;

    /** @var array<string, Flow> */
    private array $flows = [];

    /** @var array<string, array{Quantity, array<string, true>}> by joint, with the cells each was made from */
    private array $resistances = [];

    /** @var array{array<string, array{Quantity, array<string, true>}>, array<string, true>} the same before an edit, and
     *      the cells it changed */
    private array $resisted = [[], []];

    /** The one of this survey, made when it is first asked for. */
    public static function of(Survey $survey): self
    {
        return $survey->once(self::class, static fn (Survey $b): self => new self($b->build, $b->reads));
    }

    public function __construct(
        private readonly Build $build,
        private readonly ?Reads $reads = null,
        ?Topology $topology = null,
    ) {
        $this->topology = $topology ?? new Topology($build);
    }

    /** Islands that follow from nothing that has changed are as they were; the others are solved again. */
    public function carriedTo(Survey $survey, array $changed, bool $stands): CarriedOver
    {
        $rewired = isset($changed[Differences::REWIRED]);
        $topology = $rewired ? new Topology($survey->build) : $this->topology->of($survey->build);
        $cells = $rewired ? $topology->differencesFrom($this->topology) : [];
        $next = new self($survey->build, $survey->reads, $topology);
        $next->resisted = $rewired ? [[], []] : [$this->resistances, $changed];
        $next->scenarios = isset($changed['needs']) ? null : $this->scenarios;
        foreach ($next->scenarios() as $scenario) {
            $flow = $this->flows[$scenario->ref] ?? null;
            if ($flow === null) {
                continue;
            }
            $solver = new FlowSolver(
                $topology,
                $next,
                $scenario,
                $survey->reads,
                $flow,
                $changed,
                $rewired ? $this->topology : null,
            );
            $next->flows[$scenario->ref] = $solver->solve();
            foreach ($solver->differences() as $cell) {
                $cells[Flow::cell($scenario->ref, $cell)] = true;
            }
        }

        return new CarriedOver($next, array_map(strval(...), array_keys($cells)));
    }

    /**
     * Scenarios to judge by: the builder's own, and beside them everything on at once, so that what none of them runs
     * is not forgotten.
     *
     * @return list<Scenario>
     */
    public function scenarios(): array
    {
        return $this->scenarios ??= [...array_values($this->build->scenarios), ...$this->worst()];
    }

    /**
     * @return list<Scenario> everything on, unless the builder has a scenario that is just that
     */
    private function worst(): array
    {
        $all = array_fill_keys(array_map(strval(...), array_keys($this->build->needs)), Quantity::ratio(1));
        foreach ($this->build->scenarios as $own) {
            $full = array_filter($own->loads, static fn (Quantity $q): bool => $q->in('') >= 1.0);
            if (array_diff_key($all, $full) === []) {
                return [];
            }
        }

        return isset($this->build->scenarios[self::ALL]) ? [] : [new Scenario(self::ALL, 'Everything on', $all)];
    }

    /**
     * @return list<Flow>
     */
    public function flows(): array
    {
        return array_map($this->in(...), $this->scenarios());
    }

    public function in(Scenario $scenario): Flow
    {
        return $this->flows[$scenario->ref] ??= (new FlowSolver(
            $this->topology,
            $this,
            $scenario,
            $this->reads,
        ))->solve();
    }

    /** The scenario in which a lead carries most; null when it never carries anything that is known. */
    public function worstFor(string $lead): ?Flow
    {
        $worst = null;
        foreach ($this->flows() as $flow) {
            $current = $flow->current($lead);
            $known = $worst?->current($lead);
            if ($current !== null && ($known === null || $current->exceeds($known))) {
                $worst = $flow;
            }
        }

        return $worst;
    }

    /**
     * Resistance of one metre of a lead's conductor in the air it lies in, before its own load warms it.
     */
    public function lineResistance(Lead $lead): ?Quantity
    {
        $size = $lead->conductor->size;
        if ($size === null) {
            return null;
        }
        $cold =
            $lead->conductor->stranding === Stranding::Solid
                ? Conductors::resistance($size)
                : Conductors::strandedResistance($size);

        return $cold->times(Conductors::warmth(Air::of($this->build, $lead)->degrees()));
    }

    /** Resistance of a lead, out and back; null when its size or length is not known. */
    public function loopResistance(Lead $lead): ?Quantity
    {
        return $lead->length === null
            ? null
            : $this->lineResistance($lead)
                ?->times($lead->length)
                ->times(2)
                ->over($lead->effectiveConductors())
                ->to('Ω');
    }

    /**
     * Resistance of a joint of the topology: a lead out and back, or the way through a part. One that is not known is
     * a trifle, so that its current can still be told.
     */
    public function resistanceOf(string $joint): Quantity
    {
        // The same in every scenario; what it was made from is read by each that asks.
        if ($this->reads === null) {
            return ($this->resistances[$joint] ??= [$this->resistance($joint), []])[0];
        }
        $was = $this->resisted[0][$joint] ?? null;
        $this->resistances[$joint] ??=
            $was !== null && ! Reads::meet($was[1], $this->resisted[1])
                ? $was
                : $this->reads->during(fn (): Quantity => $this->resistance($joint));
        $this->reads->noteAll($this->resistances[$joint][1]);

        return $this->resistances[$joint][0];
    }

    private function resistance(string $joint): Quantity
    {
        $lead = $this->topology->leadOf($this->topology->joints[$joint]);
        if ($lead !== null) {
            $resistance = $this->loopResistance($lead);
        } else {
            [$fitted, $port] = $this->topology->at($this->topology->joints[$joint]->b);
            $resistance = $fitted->part->portSpec($port, 'resistance')?->nominal();
        }

        return $resistance === null || ! $resistance->isPositive() ? Quantity::of(1e-6, 'Ω') : $resistance;
    }

    /** Voltage a source node holds: the mains of the site, or what its sheet says. */
    public function heldBy(int $node): ?Quantity
    {
        [$fitted, $port] = $this->topology->at($node);

        return $port->mains ? $this->build->site->mainsVoltage : $fitted->part->portSpec($port, 'voltage')?->nominal();
    }

    /**
     * What the voltage a source node holds rests on: its sheet; nothing for the mains, whose voltage is the site's.
     *
     * @return list<Input>
     */
    public function restOf(int $node): array
    {
        [$fitted, $port] = $this->topology->at($node);
        $spec = $port->mains ? null : $fitted->part->portSpec($port, 'voltage');
        if ($spec === null) {
            return [];
        }
        $where = isset($port->specs['voltage']) ? "ports/{$port->name}/specs/voltage" : "specs/{$spec->key}";

        return [
            Input::ofSpec(
                $fitted->part,
                $spec,
                $fitted->part->family->field($spec->key)->label ?? "Voltage of port {$port->name}",
                "parts/{$fitted->part->ref}/{$where}",
            ),
        ];
    }

    /**
     * What a part takes at an inlet. Converters are left to the solver, which knows what they deliver.
     */
    public function demand(int $node, Scenario $scenario): Demand
    {
        [$fitted, $port] = $this->topology->at($node);
        $spindle = $port->draw === Draw::Power ? SpindleLine::spindleOf($this->topology, $fitted->need->ref) : null;
        $share = $scenario->share($fitted);
        if ($spindle !== null) {
            // A scenario may name the drive or what hangs on it.
            $share = Quantity::max($share, $scenario->share($spindle));
        }
        $need = $fitted->need->ref;
        $off = $share->isZero();
        $inputs = [];
        $missing = [];
        // At the end of its tolerance at which most flows.
        $read = static function (string $key, Bound $bound) use ($fitted, &$inputs, &$missing): ?Quantity {
            $spec = $fitted->part->spec($key);
            $value = $spec === null ? null : $bound->of($spec);
            $label = $fitted->part->family->field($key)->label ?? $key;
            if ($spec === null || $value === null) {
                $missing[] = lcfirst($label).' of '.$fitted->need->role;

                return null;
            }
            $inputs[] = Input::ofSpec($fitted->part, $spec, $label, "parts/{$fitted->part->ref}/specs/{$key}");

            return $value;
        };
        $current = null;
        $resistance = null;
        $watts = null;
        if ($off || $port->draw === null) {
            return new Demand($need, $node, Quantity::of(0, 'A'), null, $share, [], []);
        }
        switch ($port->draw) {
            case Draw::Resistive:
                if ($fitted->part->spec('cold_resistance')?->evidence === Evidence::Measured) {
                    // What was measured on it counts before what is printed on it.
                    $resistance = $read('cold_resistance', Bound::Lowest)?->over($fitted->need->quantity);
                    break;
                }
                [$volts, $power] = [$read('rated_voltage', Bound::Nominal), $read('rated_power', Bound::Highest)];
                if ($volts !== null && $power !== null && $power->isPositive() && $volts->isPositive()) {
                    $resistance = $volts->squared()->over($power)->to('Ω')->over($fitted->need->quantity);
                }
                break;
            case Draw::Current:
                $spec = $fitted->part->portSpec($port, 'rated_current');
                if ($spec === null) {
                    $read('rated_current', Bound::Highest);
                } else {
                    $inputs[] = Input::ofSpec(
                        $fitted->part,
                        $spec,
                        'Current',
                        isset($port->specs['rated_current'])
                            ? "parts/{$fitted->part->ref}/ports/{$port->name}/specs/rated_current"
                            : "parts/{$fitted->part->ref}/specs/{$spec->key}",
                    );
                    $current = $spec->highest()?->times($share);
                }
                break;
            case Draw::Power:
                [$watts, $ofLoad, $unknown] = $this->powerOf($fitted, $spindle, $port->mains);
                $watts = $watts?->times($share)->times($fitted->need->quantity);
                array_push($inputs, ...$ofLoad);
                array_push($missing, ...$unknown);
                break;
            case Draw::Driver:
                $stated =
                    $fitted->part->spec('supply_current') !== null ? $read('supply_current', Bound::Highest) : null;
                $set = $stated === null ? $read('set_current', Bound::Highest) : null;
                if ($set !== null) {
                    $current = $set->times(2 / 3)->times($share);
                    $inputs[] = new Input(
                        "Supply current of {$fitted->part->name}, taken as two thirds of its set phase current",
                        '',
                        $set->times(2 / 3),
                        Evidence::Assumed,
                        'common practice, no source',
                        "parts/{$fitted->part->ref}/specs/supply_current",
                    );
                }
                $current = $stated?->times($share) ?? $current;
                break;
            case Draw::Converter:
                break;
        }
        $current = $current?->times($fitted->need->quantity);

        return new Demand($need, $node, $current, $resistance, $share, $inputs, $missing, $watts);
    }

    /**
     * Volts times amps a part with electronics of its own takes at full load: what its shaft gives over all that is lost
     * on the way there, at the ends of their tolerances that take most. A drive takes what its spindle asks, and never more
     * than its own rating.
     *
     * @param  Fitted|null  $spindle  that hangs on it
     * @return array{Quantity|null, list<Input>, list<string>} at full load, what it rests on, what is not known
     */
    private function powerOf(Fitted $fitted, ?Fitted $spindle, bool $mains): array
    {
        $inputs = $missing = [];
        $read = static function (Fitted $of, string $key, Bound $bound) use (&$inputs, &$missing): ?Quantity {
            $field = $of->part->family->field($key);
            if ($field === null) {
                return null;
            }
            $spec = $of->part->spec($key);
            $value = $spec === null ? null : $bound->of($spec);
            if ($spec === null || $value === null || ! $value->isPositive()) {
                $missing[] = lcfirst($field->label).' of '.$of->need->role;

                return null;
            }
            $inputs[] = Input::ofSpec($of->part, $spec, $field->label, "parts/{$of->part->ref}/specs/{$key}");

            return $value;
        };
        $power = $read($fitted, 'rated_power', Bound::Highest);
        if ($spindle !== null) {
            $asked = $read($spindle, 'rated_power', Bound::Highest);
            $power = $power === null || $asked === null ? null : Quantity::min($power, $asked);
        }
        $lost = [
            $read($fitted, 'efficiency', Bound::Lowest),
            $spindle === null ? null : $read($spindle, 'efficiency', Bound::Lowest),
            $mains ? $read($fitted, 'power_factor', Bound::Lowest) : null,
        ];
        foreach (array_filter($lost) as $share) {
            $power = $power?->over($share);
        }

        return [$missing === [] ? $power?->to('W') : null, $inputs, $missing];
    }

    /**
     * What a converter gives of what it takes: its efficiency, and on the mains its power factor.
     *
     * @return array{Quantity, list<Input>, list<string>} factor, what it rests on, what is not known
     */
    public function losses(Fitted $fitted, bool $mains): array
    {
        $factor = Quantity::ratio(1);
        $inputs = $missing = [];
        foreach ($mains ? ['efficiency', 'power_factor'] : ['efficiency'] as $key) {
            $spec = $fitted->part->spec($key);
            $value = $spec?->lowest();
            $label = $fitted->part->family->field($key)->label ?? $key;
            if ($spec === null || $value === null || ! $value->isPositive()) {
                $missing[] = lcfirst($label).' of '.$fitted->need->role;
            } else {
                $factor = $factor->times($value);
                $inputs[] = Input::ofSpec($fitted->part, $spec, $label, "parts/{$fitted->part->ref}/specs/{$key}");
            }
        }

        return [$factor, $inputs, $missing];
    }
}
