<?php

declare(strict_types=1);

namespace Magpie\Core\Remedies;

use Magpie\Core\Choice\Adopting;
use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\DrivenMotor;
use Magpie\Core\Electrical\PortAllocation;
use Magpie\Core\Firmware\SettingLine;
use Magpie\Core\Firmware\SettingsAudit;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Library\Entry;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;

/**
 * What might cure a finding: contacts, conductors, fuses, settings, ends, other sources, other parts. Proposals only;
 * the search inspects the whole build with each and keeps what really cures.
 */
final readonly class Proposals
{
    private const GAUGES = [
        '28 AWG',
        '26 AWG',
        '24 AWG',
        '22 AWG',
        '20 AWG',
        '18 AWG',
        '16 AWG',
        '14 AWG',
        '12 AWG',
        '10 AWG',
    ];

    private const METRIC = [
        '0.25 mm²',
        '0.34 mm²',
        '0.5 mm²',
        '0.75 mm²',
        '1 mm²',
        '1.5 mm²',
        '2.5 mm²',
        '4 mm²',
        '6 mm²',
        '10 mm²',
    ];

    /** Checks that another part may cure; what is wrong with a lead, a joint or an order is put right there. */
    private const OF_THE_PART = [
        'E01',
        'E05',
        'E05-kit',
        'E06',
        'E07',
        'E08',
        'E09',
        'E16',
        'M01',
        'M03',
        'M04',
        'M05',
        'M08',
        'M10',
        'M12',
        'M15',
    ];

    /** Parts of the library tried for one need, the most alike first. */
    private const TRIED = 10;

    /** What a part of another kind does not do. */
    private const SAME = [
        'place',
        'job',
        'kind',
        'series',
        'frame',
        'thread',
        'head',
        'material',
        'output',
        'number',
        'pitch',
        'teeth',
        'lead',
        'nozzle',
        'process',
    ];

    /** Sizes that should stay about as they are. */
    private const NEAR = [
        'rated_power',
        'length',
        'diameter',
        'heated_width',
        'heated_depth',
        'frame_size',
        'bore',
        'output_voltage',
    ];

    private Build $build;

    /**
     * @param  list<Entry>  $shelf  entries of the workshop's library
     */
    public function __construct(private Inspection $inspection, private array $shelf)
    {
        $this->build = $inspection->bench->build;
    }

    /**
     * Families of the library in which a cure for a finding may be found.
     *
     * @return list<string>
     */
    public static function families(Build $build, Finding $finding): array
    {
        $own = array_map(
            static fn (string $need): string => $build->needs[$need]->family ?? '',
            in_array($finding->card->id, self::OF_THE_PART, true) ? $finding->subject->needs : [],
        );

        return array_values(
            array_unique(
                array_filter([
                    ...$own,
                    match ($finding->card->id) {
                        'E13' => 'fuse',
                        'E07' => 'switching_module',
                        'E19-chain' => 'cable_chain',
                        'M10' => 'screw',
                        default => '',
                    },
                ]),
            ),
        );
    }

    /**
     * @return iterable<Remedy>
     */
    public function for(Finding $finding): iterable
    {
        foreach ($this->leadsOf($finding) as $lead) {
            yield from $this->ends($lead, $finding->card->id);
            yield from $this->conductors($lead, $finding->card->id);
            yield from $this->fuses($lead, $finding->card->id);
            yield from $this->otherSources($lead, $finding->card->id);
        }
        yield from match ($finding->card->id) {
            'E08' => $this->currents($finding->subject->ref),
            'E14' => $this->earths($finding->subject->ref),
            'M10' => $this->screws($finding->subject->ref),
            'M13' => $this->plastics($finding->subject->ref),
            'M03', 'M04', 'M05', 'M12', 'E10', 'M03-drop' => $this->slower($finding->subject->ref, $finding->card->id),
            'M07' => $this->blocks($finding->subject->ref),
            'M13-recipe' => [
                new Remedy(
                    'Printed with 4 walls, 40 % infill and 5 layers',
                    [
                        Remedy::set(
                            'parts',
                            $this->build->needs[$finding->subject->ref]->choice ?? '',
                            ['specs', 'walls'],
                            self::toBe('4'),
                        ),
                        Remedy::set(
                            'parts',
                            $this->build->needs[$finding->subject->ref]->choice ?? '',
                            ['specs', 'infill'],
                            self::toBe('40 %'),
                        ),
                        Remedy::set(
                            'parts',
                            $this->build->needs[$finding->subject->ref]->choice ?? '',
                            ['specs', 'top_bottom_layers'],
                            self::toBe('5'),
                        ),
                    ],
                    false,
                ),
            ],
            'E07' => $this->modules($finding->subject->ref),
            'E21' => $this->settings($finding),
            'E12-fan' => $this->channels($finding->subject->ref),
            'E19-chain' => $this->chains($finding->subject->ref),
            'S07' => [
                Remedy::setting(
                    'Order a tenth more than is needed',
                    'needs',
                    $finding->subject->ref,
                    ['spares'],
                    '10 %',
                    true,
                ),
            ],
            default => [],
        };
        if (in_array($finding->card->id, self::OF_THE_PART, true)) {
            yield from $this->otherParts($finding);
        }
    }

    /**
     * @return list<Lead> the lead a finding is about, or those on the way to its port
     */
    private function leadsOf(Finding $finding): array
    {
        $lead = $this->build->leads[$finding->subject->ref] ?? null;
        if ($finding->subject->kind === 'lead' && $lead !== null) {
            return [$lead];
        }
        $topology = Circuits::of($this->inspection->bench)->topology;
        $node = $finding->subject->kind === 'port' ? $topology->nodes[$finding->subject->ref] ?? null : null;

        return $node === null
            ? []
            : array_values(array_filter(array_map(static fn ($j): ?Lead => $j->lead, $topology->wayBack($node))));
    }

    /**
     * @return iterable<Remedy>
     */
    private function ends(Lead $lead, string $check): iterable
    {
        foreach (['E02', 'E02-open'] as $contact) {
            foreach ($check === $contact ? [[0], [1], [0, 1]] : [] as $sides) {
                foreach ([2, 3, 4] as $count) {
                    $more = array_values(
                        array_filter(
                            $sides,
                            static fn (int $side): bool => ($lead->ends[$side]->contactsPerPole ?? 1) < $count &&
                                $lead->ends[$side]->contact !== null,
                        ),
                    );
                    if (count($more) === count($sides)) {
                        $at = implode(
                            ' and ',
                            array_map(
                                fn (int $side): string => $this->build->roleOf(
                                    $side === 0 ? $lead->from->need : $lead->to->need,
                                ),
                                $sides,
                            ),
                        );
                        yield new Remedy(
                            "{$count} contacts per pole at {$at}, for {$lead->ref}",
                            array_map(
                                static fn (int $side): array => Remedy::set(
                                    'leads',
                                    $lead->ref,
                                    ['ends', $side, 'contacts_per_pole'],
                                    $count,
                                ),
                                $sides,
                            ),
                            true,
                        );
                    }
                }
            }
        }
        $loose = array_keys(array_filter($lead->ends, static fn ($e): bool => $e->strainRelief === false));
        if (in_array($check, ['E02', 'E19'], true) && $loose !== []) {
            yield new Remedy(
                "Strain relief at both ends of {$lead->ref}",
                array_map(
                    static fn (int $side): array => Remedy::set(
                        'leads',
                        $lead->ref,
                        ['ends', $side, 'strain_relief'],
                        true,
                    ),
                    $loose,
                ),
                false,
            );
        }
        $bare = array_keys(
            array_filter($lead->ends, static fn ($e): bool => in_array($e->termination, ['bare', 'tinned'], true)),
        );
        if ($check === 'E20' && $bare !== []) {
            yield new Remedy(
                "Ferrules on {$lead->ref}",
                array_map(
                    static fn (int $side): array => Remedy::set(
                        'leads',
                        $lead->ref,
                        ['ends', $side, 'termination'],
                        'ferrule',
                    ),
                    $bare,
                ),
                true,
            );
        }
        if ($check === 'E19' && $lead->conductor->stranding !== 'fine') {
            yield Remedy::setting(
                "Fine-stranded conductors for {$lead->ref}",
                'leads',
                $lead->ref,
                ['conductor', 'stranding'],
                'fine',
                true,
            );
        }
    }

    /**
     * @return iterable<Remedy>
     */
    private function conductors(Lead $lead, string $check): iterable
    {
        $size = $lead->conductor->size;
        if ($size === null || ! in_array($check, ['E03', 'E04', 'E13'], true)) {
            return;
        }
        $ladder = str_ends_with($size->text(), 'AWG') ? self::GAUGES : self::METRIC;
        $larger = array_values(
            array_filter($ladder, static fn (string $s): bool => Quantity::parse($s, Dimension::Area)->exceeds($size)),
        );
        foreach (array_slice($larger, 0, 4) as $next) {
            yield Remedy::setting(
                "{$next} for {$lead->ref}, instead of {$size}",
                'leads',
                $lead->ref,
                ['conductor', 'size'],
                $next,
                true,
            );
        }
        yield Remedy::setting(
            "A second conductor in parallel for {$lead->ref}, joined at both ends",
            'leads',
            $lead->ref,
            ['conductor', 'parallel'],
            $lead->conductor->parallel + 1,
            true,
        );
    }

    /**
     * @return iterable<Remedy>
     */
    private function fuses(Lead $lead, string $check): iterable
    {
        if ($check !== 'E13') {
            return;
        }
        foreach ($this->build->fittedOf('fuse') as $ref => $fuse) {
            if ($ref !== $lead->protection) {
                yield Remedy::setting(
                    "{$lead->ref} behind {$fuse->need->role}, {$fuse->part->name}",
                    'leads',
                    $lead->ref,
                    ['protection'],
                    $ref,
                );
            }
        }
        $need = Adopting::free("F-{$lead->ref}", $this->build->needs);
        $fuses = $this->shelfOf('fuse');
        usort(
            $fuses,
            static fn (Entry $a, Entry $b): int => ($a->part->spec('rated_current')?->nominal()?->in('A') ?? 0) <=>
                ($b->part->spec('rated_current')?->nominal()?->in('A') ?? 0),
        );
        foreach ($fuses as $entry) {
            [$part, $changes] = Adopting::changes($this->build, $entry);
            yield new Remedy(
                "{$entry->part->name} in {$lead->ref}, at {$this->build->roleOf($lead->from->need)}",
                [
                    ...$changes,
                    [
                        'section' => 'needs',
                        'create' => [
                            'ref' => $need,
                            'role' => "Fuse in {$lead->ref}",
                            'family' => 'fuse',
                            'quantity' => 1,
                            'candidates' => [$part],
                            'choice' => $part,
                            'spares' => '100 %',
                            'purpose' => 'safety',
                        ],
                    ],
                    Remedy::set('leads', $lead->ref, ['protection'], $need),
                ],
                true,
            );
        }
    }

    /**
     * The lead from another source that holds what its load wants.
     *
     * @return iterable<Remedy>
     */
    private function otherSources(Lead $lead, string $check): iterable
    {
        if (! in_array($check, ['E05', 'E06'], true)) {
            return;
        }
        $topology = Circuits::of($this->inspection->bench)->topology;
        foreach ($topology->ports as [$fitted, $port]) {
            $ref = "{$fitted->need->ref}.{$port->name}";
            if (
                $port->kind === PortKind::Source &&
                ! $port->mains &&
                $ref !== $lead->from->text() &&
                $fitted->need->ref !== $lead->to->need
            ) {
                yield Remedy::setting(
                    "{$lead->ref} from {$fitted->need->role} instead of {$this->build->roleOf($lead->from->need)}",
                    'leads',
                    $lead->ref,
                    ['from'],
                    $ref,
                );
            }
        }
    }

    /**
     * @return iterable<Remedy>
     */
    private function currents(string $driver): iterable
    {
        $driven = DrivenMotor::of($this->inspection->bench, $driver);
        $rated = $driven?->motors[0]->part->spec('rated_current')?->nominal();
        if ($driven === null || $rated === null) {
            return;
        }
        foreach ([0.85, 0.8, 0.7] as $share) {
            $set = Quantity::of(round($rated->in('A') * $share * count($driven->motors), 2), 'A');
            yield Remedy::setting(
                "Set {$driven->driver->need->role} to {$set}",
                'parts',
                $driven->driver->part->ref,
                ['specs', 'set_current'],
                ['value' => $set->text(), 'evidence' => 'datasheet', 'source' => 'the setting to be made'],
            );
        }
        yield Remedy::setting(
            "A heat sink on {$driven->driver->need->role}",
            'parts',
            $driven->driver->part->ref,
            ['specs', 'heat_sink'],
            ['value' => true, 'evidence' => 'datasheet', 'source' => 'to be fitted'],
            true,
        );
    }

    /**
     * @return iterable<Remedy>
     */
    private function earths(string $inlet): iterable
    {
        $changes = [];
        $taken = $this->build->leads;
        foreach ($this->build->allFitted() as $ref => $fitted) {
            $mains = array_filter(
                $fitted->part->ports,
                static fn ($p): bool => $p->mains && $p->kind === PortKind::Inlet,
            );
            $earthed = array_filter(
                $this->build->leads,
                static fn (Lead $l): bool => in_array("{$ref}.earth", [$l->from->text(), $l->to->text()], true),
            );
            if ($ref !== $inlet && $mains !== [] && isset($fitted->part->ports['earth']) && $earthed === []) {
                $line =
                    array_values(
                        array_filter(
                            $this->build->leads,
                            static fn (Lead $l): bool => $l->to->need === $ref && $l->from->need === $inlet,
                        ),
                    )[0] ?? null;
                $lead = Adopting::free('W-earth', $taken);
                $taken[$lead] = true;
                $changes[] = [
                    'section' => 'leads',
                    'create' => [
                        'ref' => $lead,
                        'from' => "{$inlet}.earth",
                        'to' => "{$ref}.earth",
                        'conductor' => [
                            'size' => $line?->conductor->size?->text() ?? '1 mm²',
                            'evidence' => 'datasheet',
                            'stranding' => 'fine',
                        ],
                        'route' => 'fixed',
                        'ends' => [['termination' => 'ring'], ['termination' => 'ring']],
                    ],
                ];
            }
        }
        if ($changes !== []) {
            yield new Remedy(
                count($changes) === 1
                    ? 'An earth lead to what lacks one, as large as its line'
                    : 'Earth leads to all that lack one, as large as their lines',
                $changes,
                true,
            );
        }
    }

    /**
     * Another screw for this joint alone.
     *
     * @return iterable<Remedy>
     */
    private function screws(string $subject): iterable
    {
        [$mate, $index] = explode('/', $subject) + [1 => '0'];
        $held = $this->build->mates[$mate] ?? null;
        $stack = $held?->screws[(int) $index] ?? null;
        $now = $stack?->screw === null ? null : $this->build->fitted($stack->screw);
        if ($held === null || $stack === null || $now === null) {
            return;
        }
        $thread = $now->part->spec('thread')?->choice();
        $need = Adopting::free("s-{$mate}", $this->build->needs);
        foreach ($this->build->fittedOf('screw') as $ref => $other) {
            if ($ref !== $stack->screw && $other->part->spec('thread')?->choice() === $thread) {
                yield Remedy::setting(
                    "{$other->part->name} from {$other->need->role} for this joint",
                    'mates',
                    $mate,
                    ['screws', (int) $index, 'screw'],
                    $ref,
                    true,
                );
            }
        }
        foreach ($this->shelfOf('screw') as $entry) {
            if (
                $entry->part->spec('thread')?->choice() === $thread &&
                $entry->part->spec('head')?->choice() === ($now->part->spec('head')?->choice() ?? 'cap')
            ) {
                [$part, $changes] = Adopting::changes($this->build, $entry);
                yield new Remedy(
                    "{$entry->part->name} for this joint",
                    [
                        ...$changes,
                        [
                            'section' => 'needs',
                            'create' => [
                                'ref' => $need,
                                'role' => "Screws of {$mate}",
                                'family' => 'screw',
                                'quantity' => $stack->count,
                                'candidates' => [$part],
                                'choice' => $part,
                                'spares' => '15 %',
                            ],
                        ],
                        Remedy::set('mates', $mate, ['screws', (int) $index, 'screw'], $need),
                    ],
                    true,
                );
            }
        }
    }

    /**
     * @return iterable<Remedy>
     */
    private function plastics(string $need): iterable
    {
        $fitted = $this->build->fitted($need);
        if ($fitted === null) {
            return;
        }
        foreach (['PETG', 'ASA', 'ABS', 'PC'] as $material) {
            if ($fitted->part->spec('material')?->choice() !== $material) {
                yield Remedy::setting(
                    "{$fitted->need->role} printed in {$material}",
                    'parts',
                    $fitted->part->ref,
                    ['specs', 'material'],
                    ['value' => $material, 'evidence' => 'datasheet', 'source' => 'to be printed so'],
                );
            }
        }
    }

    /**
     * A value that is still to be made so.
     *
     * @return array<string, string>
     */
    private static function toBe(string $value): array
    {
        return ['value' => $value, 'evidence' => 'datasheet', 'source' => 'to be made so'];
    }

    /**
     * Less asked of an axis: a gentler move, a lower top speed, another gearing, better held ends, a brake.
     *
     * @return iterable<Remedy>
     */
    private function slower(string $ref, string $check): iterable
    {
        $axis = $this->build->axes[$ref] ?? null;
        if ($axis === null) {
            return;
        }
        $set = static fn (string $says, string $key, mixed $to, bool $buys = false): Remedy => Remedy::setting(
            $says,
            'axes',
            $ref,
            ['drive', $key],
            $to,
            $buys,
        );
        foreach (in_array($check, ['M03', 'M12'], true) ? [0.75, 0.5, 0.25] : [] as $share) {
            $slower = $axis->drive->acceleration?->times($share);
            $slower !== null && (yield $set("Accelerate {$axis->name} at {$slower}", 'acceleration', $slower->text()));
        }
        foreach (in_array($check, ['M03', 'M05', 'E10'], true) ? [0.8, 0.65, 0.5, 0.35] : [] as $share) {
            $slower = $axis->drive->topSpeed?->times($share);
            $slower !== null && (yield $set("Limit {$axis->name} to {$slower}", 'top_speed', $slower->text()));
        }
        if ($check === 'M03' && $axis->drive->topSpeed !== null && $axis->drive->acceleration !== null) {
            foreach ([0.65, 0.5] as $share) {
                yield new Remedy(
                    "Limit {$axis->name} to {$axis->drive->topSpeed->times(
                        $share,
                    )}, at {$axis->drive->acceleration->times($share)}",
                    [
                        [
                            'section' => 'axes',
                            'ref' => $ref,
                            'set' => [
                                [
                                    'path' => ['drive', 'top_speed'],
                                    'to' => $axis->drive->topSpeed->times($share)->text(),
                                ],
                                [
                                    'path' => ['drive', 'acceleration'],
                                    'to' => $axis->drive->acceleration->times($share)->text(),
                                ],
                            ],
                        ],
                    ],
                    false,
                );
            }
        }
        foreach (in_array($check, ['M03', 'M04', 'M03-drop'], true) ? ['1.5', '2', '3'] : [] as $ratio) {
            $axis->drive->ratio === null && (yield $set("Gear {$axis->name} down {$ratio}:1", 'ratio', $ratio, true));
        }
        foreach ($check === 'M05' ? ['fixed-supported', 'fixed-fixed'] : [] as $ends) {
            yield $set("Ends of its screw held {$ends}", 'support', $ends, true);
        }
        $motor = $this->build->fitted($axis->drive->motors[0] ?? '');
        if ($check === 'M03-drop' && $motor !== null) {
            yield Remedy::setting(
                "A motor with a brake for {$axis->name}",
                'parts',
                $motor->part->ref,
                ['specs', 'brake'],
                ['value' => true, 'evidence' => 'datasheet', 'source' => 'to be bought so'],
                true,
            );
        }
    }

    /**
     * @return iterable<Remedy>
     */
    private function blocks(string $ref): iterable
    {
        $axis = $this->build->axes[$ref] ?? null;
        if ($axis === null) {
            return;
        }
        foreach ([$axis->blocks + 1, $axis->blocks + 2] as $count) {
            yield Remedy::setting(
                "{$count} blocks on each rail of {$axis->name}",
                'axes',
                $ref,
                ['blocks'],
                $count,
                true,
            );
        }
    }

    /**
     * What was read back and differs, set as it should be.
     *
     * @return iterable<Remedy>
     */
    private function settings(Finding $finding): iterable
    {
        $changes = [];
        foreach (SettingsAudit::of($this->inspection->bench)->linesOf($finding->subject->kind, $finding->subject->ref) as $line) {
            if ($line->state() === SettingLine::DIFFERS && $line->set !== null) {
                $changes[] = Remedy::set('settings', $line->set->ref, ['value'], $line->wants);
            }
        }
        if ($changes !== []) {
            yield new Remedy(
                count($changes) === 1
                    ? "Set it as it should be: {$changes[0]['set'][0]['to']}"
                    : count($changes).' settings as they should be',
                $changes,
                false,
            );
        }
    }

    /**
     * Another channel of the same kind that nothing hangs on.
     *
     * @return iterable<Remedy>
     */
    private function channels(string $need): iterable
    {
        $ports = PortAllocation::of($this->inspection->bench);
        $taken = array_flip($ports->matching->found);
        foreach ($this->build->leads as $lead) {
            foreach ($lead->to->need === $need ? $ports->channels : [] as $channel) {
                if (
                    $channel->use === 'fan' &&
                    $channel->stated &&
                    $channel->free() &&
                    ! isset($taken[$channel->ref()])
                ) {
                    yield Remedy::setting(
                        "{$this->build->roleOf($need)} on {$channel->port}",
                        'leads',
                        $lead->ref,
                        ['from'],
                        $channel->ref(),
                    );
                }
            }
        }
    }

    /**
     * A switching module takes the load of a board's output, and the board only signals it.
     *
     * @return iterable<Remedy>
     */
    private function modules(string $port): iterable
    {
        [$board] = explode('.', $port);
        $leads = array_values(
            array_filter($this->build->leads, static fn (Lead $l): bool => $l->from->text() === $port),
        );
        $feed =
            array_values(
                array_filter($this->build->leads, static fn (Lead $l): bool => $l->to->text() === "{$board}.power"),
            )[0] ?? null;
        if (count($leads) !== 1 || $feed === null) {
            return;
        }
        $need = Adopting::free("sw-{$leads[0]->to->need}", $this->build->needs);
        $lead = Adopting::free("W-{$need}", $this->build->leads);
        foreach (array_slice($this->shelfOf('switching_module'), 0, self::TRIED) as $entry) {
            [$part, $changes] = Adopting::changes($this->build, $entry);
            yield new Remedy(
                "{$entry->part->name} between {$this->build->roleOf($board)} and {$this->build->roleOf(
                    $leads[0]->to->need,
                )}",
                [
                    ...$changes,
                    [
                        'section' => 'needs',
                        'create' => [
                            'ref' => $need,
                            'role' => "Switch of {$this->build->roleOf($leads[0]->to->need)}",
                            'family' => 'switching_module',
                            'quantity' => 1,
                            'candidates' => [$part],
                            'choice' => $part,
                            'purpose' => 'safety',
                        ],
                    ],
                    Remedy::set('leads', $leads[0]->ref, ['from'], "{$need}.out"),
                    [
                        'section' => 'leads',
                        'create' => array_filter([
                            'ref' => $lead,
                            'from' => $feed->from->text(),
                            'to' => "{$need}.in",
                            'conductor' => array_filter([
                                'size' => $leads[0]->conductor->size?->text(),
                                'evidence' => $leads[0]->conductor->evidence?->value,
                                'stranding' => $leads[0]->conductor->stranding,
                            ]),
                            'length' => $feed->length?->text(),
                            'route' => 'fixed',
                            'protection' => $feed->protection,
                            'ends' => [['termination' => 'ferrule'], ['termination' => 'ferrule']],
                        ]),
                    ],
                ],
                true,
            );
        }
    }

    /**
     * @return iterable<Remedy>
     */
    private function chains(string $ref): iterable
    {
        $now = $this->build->fitted($ref);
        if ($now === null) {
            return;
        }
        foreach ($this->shelfOf('cable_chain') as $entry) {
            [$part, $changes] = Adopting::changes($this->build, $entry);
            yield new Remedy(
                "{$entry->part->name} for {$now->need->role}",
                [
                    ...$changes,
                    [
                        'section' => 'needs',
                        'ref' => $ref,
                        'set' => [
                            ['path' => ['candidates'], 'to' => [...$now->need->candidates, $part]],
                            ['path' => ['choice'], 'to' => $part],
                        ],
                    ],
                ],
                true,
            );
        }
    }

    /**
     * Other candidates of the needs a finding is about, and parts of the library that are most alike.
     *
     * @return iterable<Remedy>
     */
    private function otherParts(Finding $finding): iterable
    {
        foreach ($finding->subject->needs as $ref) {
            $need = $this->build->needs[$ref] ?? null;
            $now = $this->build->fitted($ref);
            if (
                $need === null ||
                $now === null ||
                in_array($need->family, ['tool', 'consumable', 'wire', 'mains_inlet'], true)
            ) {
                continue;
            }
            foreach (array_diff($need->candidates, [$need->choice]) as $candidate) {
                yield Remedy::setting(
                    "{$this->build->parts[$candidate]->name} for {$need->role}",
                    'needs',
                    $ref,
                    ['choice'],
                    $candidate,
                    true,
                );
            }
            $alike = array_filter(
                $this->shelfOf($need->family),
                fn (Entry $e): bool => self::serves($now->part, $e->part) &&
                    ! in_array(Adopting::changes($this->build, $e)[0], $need->candidates, true),
            );
            usort(
                $alike,
                static fn (Entry $a, Entry $b): int => self::distance($now->part, $a->part) <=>
                    self::distance($now->part, $b->part),
            );
            foreach (array_slice($alike, 0, self::TRIED) as $entry) {
                [$part, $changes] = Adopting::changes($this->build, $entry);
                yield new Remedy(
                    "{$entry->part->name} for {$need->role}",
                    [
                        ...$changes,
                        [
                            'section' => 'needs',
                            'ref' => $ref,
                            'set' => [
                                ['path' => ['candidates'], 'to' => [...$need->candidates, $part]],
                                ['path' => ['choice'], 'to' => $part],
                            ],
                        ],
                    ],
                    true,
                );
            }
        }
    }

    /** Whether one part can do what another is there for: of the same kind, and in nothing that counts much less. */
    private static function serves(Part $now, Part $other): bool
    {
        foreach ($now->specs as $key => $spec) {
            $its = $other->spec($key);
            [$was, $is] = [$spec->nominal(), $its?->nominal()];
            $less = $was !== null && $is !== null && $is->isBelow($was->times(0.9));
            if (
                (in_array($key, self::SAME, true) && $its !== null && $spec->value !== $its->value) ||
                ($less && ($now->family->field($key)->better ?? null) === 'more') ||
                (in_array($key, self::NEAR, true) &&
                    ($less || ($was !== null && $is?->exceeds($was->times(1.5)) === true)))
            ) {
                return false;
            }
        }

        return true;
    }

    /** How unlike two parts of a family are: unlike choices, and sizes by the ratio of one to the other. */
    private static function distance(Part $one, Part $other): float
    {
        $far = 0.0;
        foreach ($one->specs as $key => $spec) {
            $its = $other->spec($key);
            [$a, $b] = [$spec->nominal(), $its?->nominal()];
            $far += match (true) {
                $its === null => 0.3,
                $a !== null && $b !== null && $a->isPositive() && $b->isPositive() => min(
                    2.0,
                    abs(log($b->over($a)->in(''))),
                ),
                $spec->value === $its->value => 0.0,
                default => 1.0,
            };
        }

        return $far;
    }

    /**
     * @return list<Entry>
     */
    private function shelfOf(string $family): array
    {
        return array_values(
            array_filter($this->shelf, static fn (Entry $e): bool => $e->part->family->key() === $family),
        );
    }
}
