<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Views;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\EnergyUse;
use Magpie\Core\Electrical\Flow;
use Magpie\Core\Electrical\SupplyLimit;
use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Scenario;
use Magpie\Core\Quantity\Quantity;

/**
 * Every supply output by scenario: what it gives, to whom, and what is left; with the wall and the energy.
 *
 * @phpstan-type Output array{ref: string, label: string, mains: bool, volts: float|null, load: float|null,
 *     limit: float|null, left: float|null, share: float|null, loads: list<array<string, mixed>>, missing: list<string>}
 * @phpstan-type Energy array{watts: float|null, measured_watts: float|null, known_watts: float, hours: float|null,
 *     runs_per_year: int|null, run_wh: float|null, run_cost: string|null, year_cost: string|null, currency: string,
 *     missing: list<string>}
 */
final readonly class PowerLedger
{
    public function __construct(private Survey $survey)
    {
    }

    /**
     * Currents in A, powers in W, energies in Wh, shares of 1. Null where it is not known; `missing` says what is.
     *
     * @return list<array{ref: string, name: string, outputs: list<Output>, energy: Energy}> one entry a scenario
     */
    public function toArray(): array
    {
        return array_map($this->scenario(...), Circuits::of($this->survey)->scenarios());
    }

    /**
     * The output with the least to spare, over all scenarios.
     *
     * @return array{ref: string, label: string, share: float, load: float|null, limit: float|null,
     *     scenario: string}|null
     */
    public function worst(): ?array
    {
        $worst = null;
        foreach ($this->toArray() as $scenario) {
            foreach ($scenario['outputs'] as $output) {
                if ($output['share'] !== null && ($worst === null || $output['share'] > $worst['share'])) {
                    $worst = [
                        'ref' => $output['ref'],
                        'label' => $output['label'],
                        'share' => $output['share'],
                        'load' => $output['load'],
                        'limit' => $output['limit'],
                        'scenario' => $scenario['name'],
                    ];
                }
            }
        }

        return $worst;
    }

    /**
     * @return array{ref: string, name: string, outputs: list<Output>, energy: Energy}
     */
    private function scenario(Scenario $scenario): array
    {
        $topology = Circuits::of($this->survey)->topology;
        $flow = Circuits::of($this->survey)->in($scenario);
        $outputs = [];
        foreach ($topology->each() as $node => [$fitted, $port]) {
            if ($port->kind === PortKind::Source) {
                $outputs[] = $this->output($flow, $node, $port->mains ? $this->fromTheWall($fitted) : $this->limit($node));
            }
        }

        return [
            'ref' => $scenario->ref,
            'name' => $scenario->name,
            'outputs' => $outputs,
            'energy' => $this->energy($scenario),
        ];
    }

    /**
     * @return Output
     */
    private function output(Flow $flow, int $node, ?Quantity $limit): array
    {
        [$fitted, $port] = Circuits::of($this->survey)->topology->at($node);
        $load = $flow->delivered($node);
        $volts = Circuits::of($this->survey)->heldBy($node);
        $loads = [];
        $missing = $flow->whyUnsolved($node) === null ? [] : [$flow->whyUnsolved($node)];
        foreach ($flow->demands($node) as $demand) {
            array_push($missing, ...$demand->missing);
            $taken = $flow->taken($demand);
            if ($taken !== null && $taken->isPositive()) {
                $loads[] = [
                    'need' => $demand->need,
                    'role' => $this->survey->build->roleOf($demand->need),
                    'amps' => round($taken->in('A'), 3),
                    'watts' => $volts === null
                            ? null
                            : round(($flow->volts($demand->node) ?? $volts)->times($taken)->in('W'), 1),
                ];
            }
        }
        usort($loads, static fn (array $a, array $b): int => $b['amps'] <=> $a['amps']);

        return [
            'ref' => "{$fitted->need->ref}.{$port->name}",
            'label' => $fitted->need->role,
            'mains' => $port->mains,
            'volts' => $volts?->in('V'),
            'load' => $load === null ? null : round($load->in('A'), 3),
            'limit' => $limit === null ? null : round($limit->in('A'), 3),
            'left' => $load === null || $limit === null ? null : round($limit->minus($load)->in('A'), 3),
            'share' => $load === null || $limit === null || $limit->isZero() ? null : round($load->over($limit)->in(''), 4),
            'loads' => $loads,
            'missing' => array_values(array_unique($missing)),
        ];
    }

    private function limit(int $node): ?Quantity
    {
        [$fitted, $port] = Circuits::of($this->survey)->topology->at($node);
        try {
            return SupplyLimit::of(
                Inquiry::forFigures($this->survey, new Subject('port', $port->name, $port->name)),
                $fitted,
                $port,
            );
        } catch (InputMissing) {
            return null;
        }
    }

    /** What comes in at an entry: the least of what the site's outlet, the entry itself and the fuse in it are rated for. */
    private function fromTheWall(Fitted $entry): ?Quantity
    {
        $limits = array_filter([
            $this->survey->build->site->outlet,
            $entry->part->spec('rated_current')?->lowest(),
            $entry->part->spec('fuse_rating')?->lowest(),
        ]);

        return $limits === [] ? null : Quantity::min(...array_values($limits));
    }

    /**
     * @return Energy
     */
    private function energy(Scenario $scenario): array
    {
        $use = EnergyUse::of(Circuits::of($this->survey), $scenario);
        $tariff = $this->survey->build->site->tariff;
        $duration = $scenario->duration;
        $run = $duration === null ? null : $use->average->times($duration);
        $yearly =
            $duration === null || $scenario->runsPerYear === null ? null : $duration->times($scenario->runsPerYear);

        return [
            'watts' => $use->missing === [] ? round($use->average->in('W'), 1) : null,
            'measured_watts' => $scenario->measured === null ? null : round($scenario->measured->in('W'), 1),
            'known_watts' => round($use->average->in('W'), 1),
            'hours' => $duration?->in('h'),
            'runs_per_year' => $scenario->runsPerYear,
            'run_wh' => $run === null ? null : round($run->in('W h'), 1),
            'run_cost' => $duration === null || $tariff === null ? null : $use->cost($duration, $tariff)->amount(),
            'year_cost' => $yearly === null || $tariff === null ? null : $use->cost($yearly, $tariff)->amount(),
            'currency' => $this->survey->build->plan->currency,
            'missing' => $use->missing,
        ];
    }
}
