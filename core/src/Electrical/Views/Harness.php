<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Views;

use Magpie\Core\Format\CsvLine;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Termination;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Conductors;

/**
 * The list to cut and crimp from: every lead with its cores, length to cut, ends, contacts to buy and pull test, drawn
 * from the model. What is not said yet is named on its row.
 *
 * @phpstan-type End array{at: string, need: string, port: string, termination: string|null, contact: string|null,
 *     pieces: int, strain_relief: bool|null}
 * @phpstan-type Row array{ref: string, label: string, use: string, cores: int, size: string|null,
 *     stranding: string|null, insulation: string|null, length: string|null, cut: string|null, route: string|null,
 *     ends: array{End, End}, protection: string|null, pull: int|null, made: bool, missing: list<string>}
 */
final readonly class Harness
{
    /** What a lead is cut longer than its run, for the ends and one crimp gone wrong. Common practice, no source. */
    private const SLACK = 0.1;

    public function __construct(private Build $build)
    {
    }

    /**
     * @return array{rows: list<Row>, contacts: list<array<string, mixed>>,
     *     conductors: list<array<string, mixed>>, joints: int, made: int}
     */
    public function toArray(): array
    {
        $rows = array_values(array_map($this->row(...), $this->build->leads));
        $contacts = $metres = [];
        $joints = 0;
        foreach ($rows as $row) {
            foreach ($row['ends'] as $end) {
                $joints += $row['cores'];
                $what = $end['contact'] ?? $end['termination'];
                if ($what !== null) {
                    $contacts[$what] = ($contacts[$what] ?? 0) + $end['pieces'];
                }
            }
            $size = $row['size'] === null ? null : trim("{$row['size']} {$row['stranding']}");
            if ($size !== null && $row['cut'] !== null) {
                $metres[$size] =
                    ($metres[$size] ?? 0.0) + Quantity::parse($row['cut'], Dimension::Length)->in('m') * $row['cores'];
            }
        }
        ksort($contacts);
        ksort($metres);

        return [
            'rows' => $rows,
            'contacts' => array_map(
                static fn (string $what, int $n): array => ['what' => $what, 'pieces' => $n, 'metres' => null],
                array_keys($contacts),
                $contacts,
            ),
            'conductors' => array_map(
                static fn (string $what, float $m): array => ['what' => $what, 'pieces' => 0, 'metres' => round($m, 2)],
                array_keys($metres),
                $metres,
            ),
            'joints' => $joints,
            'made' => count(array_filter($rows, static fn (array $r): bool => $r['made'])),
        ];
    }

    /**
     * @return iterable<string> CSV lines, RFC 4180
     */
    public function lines(): iterable
    {
        yield CsvLine::of([
            'lead',
            'label',
            'use',
            'from',
            'to',
            'cores',
            'size',
            'stranding',
            'length',
            'cut',
            'route',
            'end at from',
            'contacts',
            'end at to',
            'contacts',
            'fuse',
            'pull test N',
            'made',
        ]);
        foreach ($this->toArray()['rows'] as $row) {
            [$a, $b] = $row['ends'];
            yield CsvLine::of(
                array_map(strval(...), [
                    $row['ref'],
                    $row['label'],
                    $row['use'],
                    "{$a['at']}, {$a['port']}",
                    "{$b['at']}, {$b['port']}",
                    $row['cores'],
                    $row['size'] ?? '',
                    $row['stranding'] ?? '',
                    $row['length'] ?? '',
                    $row['cut'] ?? '',
                    $row['route'] ?? '',
                    $a['contact'] ?? ($a['termination'] ?? ''),
                    $a['pieces'],
                    $b['contact'] ?? ($b['termination'] ?? ''),
                    $b['pieces'],
                    $row['protection'] ?? '',
                    $row['pull'] ?? '',
                    $row['made'] ? 'yes' : 'no',
                ]),
            );
        }
    }

    /**
     * A made-up loom against one's own: hours for its joints, their worth, and what decides.
     *
     * @param  float  $minutes  for one joint
     * @return array{hours: float, own: string|null, loom: string, currency: string, says: string}
     */
    public function againstLoom(Money $loom, float $minutes): array
    {
        $hours = ($this->toArray()['joints'] * $minutes) / 60;
        $hour = $this->build->brief->hour;
        $own = $hour?->times(Quantity::ratio($hours));
        $at = sprintf('%.1f h at %g minutes a joint', $hours, $minutes);
        $says = match (true) {
            $own === null => "{$at}. What an hour is worth stands in the brief; it is not given, so money alone decides nothing.",
            $own->compare($loom) > 0 => "{$at} are worth {$own}: the loom costs less. Check its lengths against each run before it is bought; slack can be hidden, shortage cannot.",
            default => "{$at} are worth {$own}: made by hand it costs less, wire and contacts apart, and every length is right.",
        };

        return [
            'hours' => round($hours, 2),
            'own' => $own?->amount(),
            'loom' => $loom->amount(),
            'currency' => $loom->currency,
            'says' => $says,
        ];
    }

    /** What a lead is there for: "mains", "power", "motor", "signal" or "earth". */
    public static function useOf(Build $build, Lead $lead): string
    {
        $ports = array_filter([$build->port($lead->from), $build->port($lead->to)]);
        $has = static fn (PortKind $kind): bool => array_filter(
            $ports,
            static fn (Port $p): bool => $p->kind === $kind,
        ) !== [];

        return match (true) {
            $has(PortKind::Earth) => 'earth',
            $has(PortKind::Phase) => 'motor',
            $has(PortKind::Signal) => 'signal',
            array_filter($ports, static fn (Port $p): bool => $p->mains) !== [] => 'mains',
            default => 'power',
        };
    }

    /**
     * @return Row
     */
    private function row(Lead $lead): array
    {
        $use = self::useOf($this->build, $lead);
        // A motor's phases are four conductors; a signal is counted with its return.
        $cores = ['earth' => 1, 'motor' => 4][$use] ?? 2;
        $cores *= $lead->conductor->parallel;
        $size = $lead->conductor->size?->text();

        return [
            'ref' => $lead->ref,
            'label' => "{$lead->ref} {$lead->from->text()}",
            'use' => $use,
            'cores' => $cores,
            'size' => $size,
            'stranding' => $lead->conductor->stranding?->value,
            'insulation' => $lead->conductor->insulation,
            'length' => $lead->length?->text(),
            'cut' => $lead->length === null ? null : $this->cut($lead->length)->text(),
            'route' => $lead->route,
            'ends' => [$this->end($lead, 0, $cores), $this->end($lead, 1, $cores)],
            'protection' => $lead->protection === null ? null : $this->build->roleOf($lead->protection),
            'pull' => $size === null ? null : Conductors::pull($size),
            'made' => $lead->made,
            'missing' => array_keys(
                array_filter(
                    [
                        'size' => $size,
                        'length' => $lead->length,
                        'stranding' => $lead->conductor->stranding,
                        'route' => $lead->route,
                        'an end' => $lead->ends[0]->termination,
                        'the other end' => $lead->ends[1]->termination,
                    ],
                    static fn (mixed $v): bool => $v === null,
                ),
            ),
        ];
    }

    /**
     * The run with its slack, rounded up to the next centimetre, in the unit it was given in where that is not metres.
     */
    private function cut(Quantity $length): Quantity
    {
        return Quantity::of(ceil(($length->in('mm') * (1 + self::SLACK)) / 10 - 1e-9) * 10, 'mm');
    }

    /**
     * @return End
     */
    private function end(Lead $lead, int $side, int $cores): array
    {
        $end = $lead->ends[$side];
        $port = $side === 0 ? $lead->from : $lead->to;
        $poles = intdiv($cores, max(1, $lead->conductor->parallel));

        return [
            'at' => $this->build->roleOf($port->need),
            'need' => $port->need,
            'port' => $port->port,
            'termination' => $end->termination?->value,
            'contact' => $end->contact === null ? null : $this->build->parts[$end->contact]->name,
            'pieces' => in_array(
                $end->termination,
                [Termination::Soldered, Termination::Moulded, Termination::Bare, Termination::Tinned, null],
                true,
            ) && $end->contact === null
                    ? 0
                    : ($end->contactsPerPole !== null
                    ? $end->contactsPerPole * $poles
                    : $cores),
            'strain_relief' => $end->strainRelief,
        ];
    }
}
