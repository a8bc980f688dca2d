<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Hazard;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\PortRef;
use Magpie\Core\Machine\UnitSystem;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Conductors;

/**
 * The leads a build still wants: for each port that nothing is joined to, a far end of the right kind, a size by what it
 * takes and by the drop on its way, and usual ends. Proposed, never stored by itself; what comes of it is judged like any
 * other lead. Where no far end suits, it says so.
 *
 * Sizes: 80 % of the ampacity of IEC 60204-1 laid among others (B2) in the air of the warmer of its ends, and 3 % of
 * drop; the thinnest by class of lead is common practice, no source.
 */
final class LeadProposals
{
    /** Thinnest size by class of lead, mm²: what holds in a terminal and in a hand. Common practice, no source. */
    private const LEAST = [
        'power' => 0.5,
        'small' => 0.25,
        'mains' => 0.75,
        'phase' => 0.5,
        'signal' => 0.25,
        'earth' => 0.75,
    ];

    /** Up to this a load is small: a fan, a lamp, a sensor. */
    private const SMALL = 1.0;

    private const LEFT_ON = 'straight from there it would be on for ever: what switches it is for you to choose, and nothing free does';

    private const HOLDS = 0.8;

    private const DROP = 0.03;

    /** @var array<string, true> ports something is joined to, or is about to be */
    private array $taken = [];

    /** @var array<string, float> ampere proposed from each source so far */
    private array $drawn = [];

    /** @var list<LeadProposal> */
    private array $found = [];

    /** @var list<array{port: string, why: string}> */
    private array $open = [];

    /** @var array<string, PortRef> where a need is told to hang, by its ref */
    private array $channels = [];

    /** @var array<string, true> needs whose channel a board only counts, without a name for it */
    private array $counted = [];

    private function __construct(private readonly Survey $survey)
    {
        foreach ($survey->build->runs() as [$from, $to]) {
            $this->taken[$from->text()] = $this->taken[$to->text()] = true;
        }
        $allocation = PortAllocation::of($survey);
        foreach ($allocation->channels as $channel) {
            foreach ($channel->stated ? [] : array_keys($allocation->found, $channel->ref(), true) as $wish) {
                $this->counted[explode('/', (string) $wish)[0]] = true;
            }
        }
        $this->channels = self::channels($allocation);
    }

    /**
     * Where each thing would hang: the first piece of each need that has a channel with a port of its own.
     *
     * @return array<string, PortRef> by need
     */
    private static function channels(PortAllocation $allocation): array
    {
        $stated = array_filter($allocation->channels, static fn (Channel $c): bool => $c->stated);
        $ports = array_map(static fn (Channel $c): string => $c->ref(), $stated);
        $found = [];
        foreach ($allocation->wishes as $wish) {
            $port = PortRef::of($allocation->found[$wish->ref()] ?? '');
            if ($port !== null && $wish->piece === 1 && in_array($port->text(), $ports, true)) {
                $found[$wish->need] = $port;
            }
        }

        return $found;
    }

    /**
     * @return array{leads: list<LeadProposal>, open: list<array{port: string, why: string}>} ports with no far end, and
     * why
     */
    public static function of(Survey $survey): array
    {
        $wiring = new self($survey);
        foreach ([PortKind::Inlet, PortKind::Phase, PortKind::Signal, PortKind::Earth] as $kind) {
            foreach ($survey->build->allFitted() as $ref => $fitted) {
                foreach ($fitted->part->ports as $port) {
                    if ($port->kind === $kind && ! isset($wiring->taken["{$ref}.{$port->name}"])) {
                        $wiring->wire($fitted, $port);
                    }
                }
            }
        }

        $wiring->throughTheStop();

        return ['leads' => $wiring->found, 'open' => $wiring->open];
    }

    private function wire(Fitted $fitted, Port $port): void
    {
        // What sits in a slot of a board is fed by it; what joins leads, breaks them or protects them goes where the
        // builder wants it; what switches is wired with what it switches.
        $host = $this->survey->build->fitted(explode('.', $fitted->need->seat ?? '')[0]);
        $seated = $host?->part->can(Ability::HasChannels) === true && $port->kind !== PortKind::Phase;
        $through = $port->kind === PortKind::Inlet && $this->isPassedThrough($fitted, $port);
        if ($seated || $through || $fitted->part->can(Ability::Joins)) {
            return;
        }
        match ($port->kind) {
            PortKind::Inlet => $port->mains ? $this->mains($fitted, $port) : $this->power($fitted, $port),
            PortKind::Phase => $this->phase($fitted, $port),
            PortKind::Signal => $this->signal($fitted, $port),
            PortKind::Earth => $this->earth($fitted, $port),
            default => null,
        };
    }

    /** Whether all it takes in here goes out again. */
    private function isPassedThrough(Fitted $fitted, Port $port): bool
    {
        foreach ($fitted->part->ports as $out) {
            if ($out->fedFrom === $port->name && ! $fitted->part->can(Ability::HasChannels)) {
                return true;
            }
        }

        return false;
    }

    private function power(Fitted $fitted, Port $port): void
    {
        $ref = $fitted->need->ref;
        $drive = $fitted->part->can(Ability::Spins) ? $this->spare('motor', Ability::SetsSpeed, $fitted) : null;
        if ($drive !== null) {
            $this->propose($drive, $fitted, $port, 'phase', 'its drive turns it');

            return;
        }
        $switched = $this->switchedFor($fitted);
        [$best, $others, $why] = $this->sourceFor($fitted, $port);
        if ($switched !== null) {
            $this->throughSwitch($fitted, $port, $switched, $best, $others, $why);

            return;
        }
        // A driver with terminals of its own is fed by a supply: a slot is for drivers that plug in.
        $fed = ! $fitted->part->can(Ability::FeedsPhases);
        $channel = $fed ? $this->channels[$ref] ?? $this->portNamedLike($fitted, PortKind::Outlet) : null;
        $outlet = $channel === null ? null : $this->survey->build->port($channel);
        if ($channel !== null && $outlet?->kind === PortKind::Outlet && ! isset($this->taken[$channel->text()])) {
            $most = $this->beyond($outlet, $fitted, $port);
            if ($most === null) {
                $this->propose($channel, $fitted, $port, 'power', 'a free channel of its kind');

                return;
            }
            // Straight from a supply it would be on for ever: what switches it is the builder's to choose.
            $this->open[] = [
                'port' => "{$ref}.{$port->name}",
                'why' => "{$this->role($channel)} gives {$most} there, and it takes {$this->current(
                    $fitted,
                    $port,
                    null,
                )}:".' a switching module goes between them',
            ];

            return;
        }
        if ($best === null || $this->isLeftOn($fitted)) {
            $this->open[] = ['port' => "{$ref}.{$port->name}", 'why' => $best === null ? $why : self::LEFT_ON];

            return;
        }
        $this->propose($best, $fitted, $port, 'power', $why, $others);
    }

    /**
     * From a source to what switches a load, and from there to the load.
     *
     * @param  PortRef  $switched  far side of what switches it
     * @param  PortRef|null  $source  null where there is none: the near side is left to the builder
     * @param  list<PortRef>  $others
     */
    private function throughSwitch(
        Fitted $load,
        Port $port,
        PortRef $switched,
        ?PortRef $source,
        array $others,
        string $why,
    ): void {
        $switch = $this->survey->build->fitted($switched->need);
        $in = $switch?->part->ports[$this->survey->build->port($switched)->fedFrom ?? ''] ?? null;
        if ($in !== null && $source !== null && ! isset($this->taken["{$switched->need}.{$in->name}"])) {
            // Through the switch goes what its load takes.
            $why = "{$why}, for {$load->need->role}";
            $this->propose($source, $load, $port, 'power', $why, $others, $in, $switched->need);
        }
        $this->propose(
            $switched,
            $load,
            $port,
            $port->mains ? 'mains' : 'power',
            "{$this->role($switched)} switches it",
        );
    }

    /** Whether it would heat for ever if it hung straight on a supply, in a machine that has what commands it. */
    private function isLeftOn(Fitted $fitted): bool
    {
        return $fitted->part->can(Ability::Heats) && [...$this->survey->build->fittedThat(Ability::HasChannels)] !== [];
    }

    /**
     * The supply that suits it: of a voltage it stands, not yet full, and, where several are left, nearest to what it is
     * made for; a motor's driver wants the most it stands with a tenth to spare.
     *
     * @return array{PortRef|null, list<PortRef>, string} it, the others, why
     */
    private function sourceFor(Fitted $fitted, Port $port): array
    {
        $least = $fitted->part->portSpec($port, 'min_voltage')?->lowest();
        $most = $fitted->part->portSpec($port, 'max_voltage')?->highest();
        $rated = $fitted->part->spec('rated_voltage')?->nominal();
        $suited = $unsuited = [];
        foreach ($this->survey->build->allFitted() as $need => $supply) {
            foreach ($supply->part->ports as $out) {
                if ($out->kind !== PortKind::Source || $need === $fitted->need->ref) {
                    continue;
                }
                $volts = $out->mains
                    ? $this->survey->build->site->mainsVoltage
                    : $supply->part->portSpec($out, 'voltage')?->nominal();
                if ($volts === null || ($out->mains && $rated === null && $most === null)) {
                    continue;
                }
                $full = $this->isFull($supply, $out, $fitted, $port, $volts);
                $stands =
                    ($least === null || ! $volts->isBelow($least)) &&
                    ($most === null || ! $volts->exceeds($most)) &&
                    ($rated === null || $most !== null || abs($volts->in('V') / $rated->in('V') - 1) < 0.2);
                // With nothing known of what it stands, only what is low enough to hurt nobody is offered.
                $stands = $stands && ($most !== null || $rated !== null || ! $out->mains);
                if (! $stands) {
                    $unsuited[] = "{$supply->need->role} {$volts}";

                    continue;
                }
                $distance = match (true) {
                    $rated !== null => abs($volts->in('V') - $rated->in('V')),
                    $most !== null => $volts->in('V') > 0.9 * $most->in('V') ? 1e3 + $volts->in('V') : -$volts->in('V'),
                    default => $volts->in('V'),
                };
                if ($full && $supply->part->can(Ability::HasChannels)) {
                    continue;
                }
                $suited[] = [
                    [-$this->alike($supply, $fitted), $distance, $full],
                    new PortRef((string) $need, $out->name),
                    $volts,
                ];
            }
        }
        if ($suited === []) {
            return [
                null,
                [],
                $unsuited === []
                    ? 'no supply is fitted that could feed it'
                    : 'no supply has a voltage it stands: '.implode(', ', $unsuited),
            ];
        }
        usort($suited, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $why =
            "{$suited[0][2]}, ".
            match (true) {
                $least !== null || $most !== null => 'which it stands',
                $rated !== null => 'what it is made for',
                default => 'the lowest there is: what it stands is not known',
            };

        return [$suited[0][1], array_map(static fn (array $s): PortRef => $s[1], array_slice($suited, 1)), $why];
    }

    /** What an output gives at most, where that is less than the load takes; null where it will do, or nobody knows. */
    private function beyond(Port $outlet, Fitted $fitted, Port $port): ?Quantity
    {
        $most = ($outlet->specs['rated_current'] ?? null)?->lowest();
        $takes = $this->current($fitted, $port, null);

        return $most !== null && $takes?->exceeds($most) === true ? $most : null;
    }

    private function isFull(Fitted $supply, Port $out, Fitted $load, Port $port, Quantity $volts): bool
    {
        $rated = $supply->part->portSpec($out, 'rated_current')?->lowest();
        $more = $this->current($load, $port, $volts);

        // What a board gives besides is for what hangs on its inputs.
        if ($supply->part->can(Ability::HasChannels) && ($rated === null || $more === null)) {
            return true;
        }

        return $rated !== null &&
            $more !== null &&
            ($this->drawn["{$supply->need->ref}.{$out->name}"] ?? 0.0) + $more->in('A') > self::HOLDS * $rated->in('A');
    }

    private function mains(Fitted $fitted, Port $port): void
    {
        $sources = $full = [];
        $volts = $this->survey->build->site->mainsVoltage;
        foreach ($this->survey->build->allFitted() as $need => $inlet) {
            foreach ($inlet->part->ports as $out) {
                if ($out->kind === PortKind::Source && $out->mains) {
                    $source = new PortRef((string) $need, $out->name);
                    $volts !== null && $this->isFull($inlet, $out, $fitted, $port, $volts)
                        ? ($full[] = $source)
                        : ($sources[] = $source);
                }
            }
        }
        $sources = [...$sources, ...$full];
        $switched = $this->isLeftOn($fitted) ? $this->switchedFor($fitted) : null;
        if ($switched !== null) {
            $others = array_slice($sources, 1);
            $this->throughSwitch($fitted, $port, $switched, $sources[0] ?? null, $others, 'from the power inlet');

            return;
        }
        if ($sources !== [] && $this->isLeftOn($fitted)) {
            $this->open[] = ['port' => "{$fitted->need->ref}.{$port->name}", 'why' => self::LEFT_ON];

            return;
        }
        if ($sources === []) {
            $this->open[] = [
                'port' => "{$fitted->need->ref}.{$port->name}",
                'why' => 'no power inlet is fitted: mains comes in through one with its fuse and switch',
            ];

            return;
        }
        $this->propose($sources[0], $fitted, $port, 'mains', 'from the power inlet', array_slice($sources, 1));
    }

    private function phase(Fitted $fitted, Port $port): void
    {
        if (! $fitted->part->can(Ability::Drives)) {
            return;
        }
        $channel = $this->channels[$fitted->need->ref] ?? null;
        $from = $channel !== null && $this->survey->build->port($channel)?->kind === PortKind::Phase ? $channel : null;
        $from ??= $this->spare('motor', Ability::FeedsPhases, $fitted);
        if ($from === null || isset($this->taken[$from->text()])) {
            $this->open[] = [
                'port' => "{$fitted->need->ref}.{$port->name}",
                'why' => 'no driver is free for it',
            ];

            return;
        }
        $this->propose($from, $fitted, $port, 'phase', "{$this->role($from)} is free and named alike");
    }

    private function signal(Fitted $fitted, Port $port): void
    {
        $uses = $fitted->part->family->channels($fitted->part);
        $channel = $this->channels[$fitted->need->ref] ?? $this->portNamedLike($fitted, PortKind::Signal);
        if ($uses === [] || in_array($port->name, ['enable', 'fault', 'link'], true)) {
            return;
        }
        if ($channel === null) {
            $this->open[] = [
                'port' => "{$fitted->need->ref}.{$port->name}",
                'why' => isset($this->counted[$fitted->need->ref])
                    ? 'the board counts a channel of its kind and names none: name it under Ports'
                    : 'no board has a channel of its kind left',
            ];

            return;
        }
        $its = $this->survey->build->port($channel);
        $gives = ($its?->specs['voltage'] ?? null)?->nominal();
        $coil = $fitted->part->spec('coil_voltage')?->nominal();
        if ($coil !== null && $gives !== null && abs($gives->in('V') / $coil->in('V') - 1) > 0.2) {
            $this->open[] = [
                'port' => "{$fitted->need->ref}.{$port->name}",
                'why' => "its coil wants {$coil}, and no free channel gives that",
            ];

            return;
        }
        if ($its === null || isset($this->taken[$channel->text()]) || $its->kind === PortKind::Phase) {
            return;
        }
        if ($its->kind === PortKind::Outlet && $fitted->part->can(Ability::FeedsPhases)) {
            $this->open[] = [
                'port' => "{$fitted->need->ref}.{$port->name}",
                'why' => 'the slots of the board take drivers that plug in; this one wants outputs for step and direction',
            ];

            return;
        }
        $board = $this->survey->build->fitted($channel->need);
        // A driver, module or coil is told by the board; what feels something tells the board.
        $told =
            ! $fitted->part->can(Ability::Speaks) &&
            ! in_array('thermistor', $uses, true) &&
            in_array($port->name, ['control', 'coil', 'run'], true);
        $here = new PortRef($fitted->need->ref, $port->name);
        if ($board !== null) {
            $this->add(
                $told ? $channel : $here,
                $told ? $here : $channel,
                'signal',
                null,
                null,
                'a free channel of its kind',
            );
        }
    }

    private function earth(Fitted $fitted, Port $port): void
    {
        if ($fitted->part->can(Ability::TakesMains) || ! $this->wantsEarth($fitted)) {
            return;
        }
        $inlets = [...$this->survey->build->fittedThat(Ability::TakesMains)];
        $feeds = $this->mainsOf($fitted->need->ref)->need ?? '';
        foreach (isset($inlets[$feeds]) ? [$feeds => $inlets[$feeds]] : $inlets as $need => $inlet) {
            foreach ($inlet->part->ports as $out) {
                if ($out->kind === PortKind::Earth) {
                    $this->add(
                        new PortRef((string) $need, $out->name),
                        new PortRef($fitted->need->ref, $port->name),
                        'earth',
                        null,
                        null,
                        'its metal can be touched',
                    );

                    return;
                }
            }
        }
    }

    /** Where the mains of a part come from, through all that switches them: its earth and its fuse are there. */
    private function mainsOf(string $need): ?PortRef
    {
        $from = null;
        for ($seen = []; ! isset($seen[$need]); $need = $from->need) {
            $seen[$need] = true;
            $into = null;
            foreach ([...$this->found, ...$this->survey->build->leads] as $lead) {
                $carries =
                    $lead instanceof LeadProposal ? $lead->class === 'mains' : $this->survey->build->isMains($lead);
                $into ??= $carries && $lead->to->need === $need ? $lead->from : null;
            }
            if ($into === null) {
                break;
            }
            $from = $into;
        }

        return $from;
    }

    /** Mains goes into it, or, of a heater, what it is made for is no extra-low voltage. */
    private function wantsEarth(Fitted $fitted): bool
    {
        $rated = $fitted->part->spec('rated_voltage')?->nominal();
        foreach ($fitted->part->ports as $port) {
            if ($port->mains && $port->kind === PortKind::Inlet) {
                return true;
            }
        }

        // A bed's plate and a spindle's body are metal that hands are on.
        return $rated?->exceeds(Quantity::of(60, 'V')) === true ||
            $fitted->part->spec('place')?->choice() === 'bed' ||
            $fitted->part->family->hazard() === Hazard::Spindle;
    }

    /**
     * @param  list<PortRef>  $others
     * @param  Port|null  $into  of what switches it, where the lead runs to that
     * @param  string|null  $switch  need of what switches it
     */
    private function propose(
        PortRef $from,
        Fitted $fitted,
        Port $port,
        string $class,
        string $why,
        array $others = [],
        ?Port $into = null,
        ?string $switch = null,
    ): void {
        $source = $this->survey->build->fitted($from->need);
        $out = $this->survey->build->port($from);
        $mains = $class === 'mains' || $out?->mains === true;
        $volts = $mains
            ? $this->survey->build->site->mainsVoltage
            : ($source === null || $out === null
                ? null
                : $source->part->portSpec($out, 'voltage')?->nominal());
        $volts ??= $fitted->part->spec('rated_voltage')?->nominal();
        $current = $this->current($fitted, $port, $volts);
        if ($current !== null) {
            $this->drawn[$from->text()] = ($this->drawn[$from->text()] ?? 0.0) + $current->in('A');
        }
        $to = new PortRef($switch ?? $fitted->need->ref, $into->name ?? $port->name);
        $this->add($from, $to, $mains && $class === 'power' ? 'mains' : $class, $current, $volts, $why, $others);
    }

    /**
     * @param  list<PortRef>  $others
     */
    private function add(
        PortRef $from,
        PortRef $to,
        string $class,
        ?Quantity $current,
        ?Quantity $volts,
        string $why,
        array $others = [],
    ): void {
        foreach ([$from, $to] as $end) {
            if ($this->survey->build->port($end)?->kind !== PortKind::Source) {
                $this->taken[$end->text()] = true;
            }
        }
        $current = $current?->rounded(3);
        $length = $this->lengthLike($from, $to);
        [$route, $chain] = $this->run($from, $to);
        $size = $this->size($class, $from, $to, $current, $volts, $length);
        $sizes = $this->sizes();
        $this->found[] = new LeadProposal(
            $from,
            $to,
            $class,
            $size ?? $sizes[count($sizes) - 1],
            $current,
            $length,
            $route,
            $chain,
            [$this->end($from, $class), $this->end($to, $class)],
            $size === null ? "{$why}; not even the thickest listed carries it, or reaches so far" : $why,
            $others,
        );
    }

    /** What it takes at this port at most; null where its sheet does not say. */
    private function current(Fitted $fitted, Port $port, ?Quantity $volts): ?Quantity
    {
        $part = $fitted->part;
        $said = $part->portSpec($port, 'rated_current')?->highest() ?? $part->spec('rated_current')?->highest();
        $pieces = $port->kind === PortKind::Phase ? 1 : max(1, $fitted->need->quantity);
        $watts = $part->spec('rated_power')?->highest();
        $rated = $part->spec('rated_voltage')?->nominal() ?? $volts;
        // A board's own current is the least of it: what its input fuse or terminal lets through comes on top.
        $board = $part->spec('input_fuse')?->highest() ?? $part->spec('input_terminal_rating')?->highest();

        return match (true) {
            $part->can(Ability::Converts) && $watts !== null && $volts !== null // 80 % efficiency, and for mains a power factor of 0.6: common practice, no source.
                => Quantity::of($watts->in('W') / 0.8 / ($port->mains ? 0.6 : 1.0) / $volts->in('V'), 'A'),
            $part->can(Ability::HasChannels) && $board !== null => $board->times(self::HOLDS),
            $part->spec('continuous_current') !== null => $part->spec('continuous_current')->highest(),
            $watts !== null && $rated !== null => Quantity::of(($pieces * $watts->in('W')) / $rated->in('V'), 'A'),
            $said !== null => $said->times($pieces),
            default => null,
        };
    }

    /** The thinnest that carries it, keeps to the drop and holds in a terminal; null where none that is listed does. */
    private function size(
        string $class,
        PortRef $from,
        PortRef $to,
        ?Quantity $current,
        ?Quantity $volts,
        ?Quantity $length,
    ): ?string {
        $build = $this->survey->build;
        if ($class === 'earth') {
            // As thick as the line beside it.
            foreach ([...$this->found, ...$build->leads] as $lead) {
                $beside =
                    $lead instanceof LeadProposal
                        ? [$lead->class === 'mains', $lead->size]
                        : [
                            $build->port($lead->to)?->mains === true &&
                            $build->port($lead->to)->kind === PortKind::Inlet,
                            $lead->conductor->size?->text(),
                        ];
                if ($lead->to->need === $to->need && $beside[0] && $beside[1] !== null) {
                    return $beside[1];
                }
            }
        }
        $small = $class === 'power' && $current !== null && ! $current->exceeds(Quantity::of(self::SMALL, 'A'));
        $least = self::LEAST[$small ? 'small' : $class];
        $fuse = $class === 'mains' ? $this->fuseAt($from) : null;
        $carries = $current?->times(1 / self::HOLDS);
        $carries = $fuse === null ? $carries : Quantity::max($fuse, $carries ?? $fuse);
        foreach ($this->sizes() as $size) {
            $area = Quantity::parse($size, Dimension::Area);
            if (
                $area->in('mm²') >= $least * 0.8 &&
                $this->carries($area, $carries, Air::between($build, $from->need, $to->need)) &&
                $this->reaches($area, $current, $volts, $length)
            ) {
                return $size;
            }
        }

        return null;
    }

    /**
     * @return list<string> sizes there are, the thinnest first
     */
    private function sizes(): array
    {
        return $this->survey->build->plan->units === UnitSystem::Imperial ? Conductors::gauges() : Conductors::sections();
    }

    private function carries(Quantity $area, ?Quantity $current, Air $air): bool
    {
        $most = Conductors::ampacityIn(Quantity::of($air->degrees(), '°C'), $area, 'B2');

        return $current === null || ($most !== null && ! $current->exceeds($most));
    }

    private function reaches(Quantity $area, ?Quantity $current, ?Quantity $volts, ?Quantity $length): bool
    {
        if ($current === null || $volts === null || $length === null) {
            return true;
        }
        $drop =
            2 *
            $length->in('m') *
            Conductors::strandedResistance($area)->in('Ω/m') *
            Conductors::warmth(70) *
            $current->in('A');

        return $drop <= self::DROP * $volts->in('V');
    }

    /** What the fuse lets through before which a lead stands, here or where the mains come in. */
    private function fuseAt(PortRef $from): ?Quantity
    {
        foreach (array_filter([$from, $this->mainsOf($from->need)]) as $at) {
            $port = $this->survey->build->port($at);
            $rating =
                $port === null
                    ? null
                    : $this->survey->build->fitted($at->need)?->part->portSpec($port, 'fuse_rating')?->highest();
            if ($rating !== null) {
                return $rating;
            }
        }

        return null;
    }

    /** The length of a lead between the same two parts, the longest where there are several. */
    private function lengthLike(PortRef $from, PortRef $to): ?Quantity
    {
        $longest = null;
        foreach ($this->survey->build->leads as $lead) {
            $ends = [$lead->from->need, $lead->to->need];
            if ($lead->length !== null && in_array($from->need, $ends, true) && in_array($to->need, $ends, true)) {
                $longest = $longest === null ? $lead->length : Quantity::max($longest, $lead->length);
            }
        }

        return $longest;
    }

    /**
     * @return array{string|null, string|null} how it runs, and through which chain
     */
    private function run(PortRef $from, PortRef $to): array
    {
        $build = $this->survey->build;
        $carried = [];
        foreach ($build->axes as $axis) {
            foreach ($axis->drive->carries as $need) {
                $carried[$need] = true;
            }
        }
        if (isset($carried[$from->need]) !== isset($carried[$to->need])) {
            $chains = array_keys([...$build->fittedThat(Ability::LeadsMove)]);

            return ['flexing', count($chains) === 1 ? (string) $chains[0] : null];
        }
        $zone = $build->zoneOf($from->need);

        return [$zone !== null && $zone === $build->zoneOf($to->need) ? 'fixed' : null, null];
    }

    /** What a lead usually ends in there: common practice, no source. */
    private function end(PortRef $at, string $class): string
    {
        $part = $this->survey->build->fitted($at->need)?->part;
        $port = $part->ports[$at->port] ?? null;

        return match (true) {
            $class === 'earth' => 'ring',
            $class === 'mains' => 'fork',
            // A channel of a board has a plug; its power input a terminal.
            $part?->can(Ability::HasChannels) === true => $port?->kind === PortKind::Inlet ? 'ferrule' : 'crimp',
            // Supplies, switches and drivers have terminals; what stands at the end of a line has leads or a plug.
            $part?->can(Ability::Converts) === true, $part?->can(Ability::Switches) === true => 'ferrule',
            $part?->can(Ability::Drives) !== true &&
                ($part?->spec('continuous_current') !== null || isset($part->ports['out'])) => 'ferrule',
            default => 'crimp',
        };
    }

    /** A free port of a board that is named like a part. */
    private function portNamedLike(Fitted $fitted, PortKind $kind): ?PortRef
    {
        $words = NamedAlike::words("{$fitted->need->ref} {$fitted->need->role}");
        foreach ($this->survey->build->fittedThat(Ability::HasChannels) as $need => $board) {
            foreach ($board->part->ports as $port) {
                if (
                    $port->kind === $kind &&
                    ! isset($this->taken["{$need}.{$port->name}"]) &&
                    ($port->specs['reserved'] ?? null)?->flag() !== true &&
                    ($kind !== PortKind::Outlet || $this->isFor($port, $fitted)) &&
                    ($kind !== PortKind::Signal ||
                        in_array(($port->specs['use'] ?? null)?->choice() ?? 'signal', ['signal', 'motor'], true)) &&
                    array_intersect(NamedAlike::words($port->name), $words) !== []
                ) {
                    return new PortRef((string) $need, $port->name);
                }
            }
        }

        return null;
    }

    /** Whether an output is for such a load, as far as it says, and gives as much as that takes. */
    private function isFor(Port $outlet, Fitted $fitted): bool
    {
        $use = ($outlet->specs['use'] ?? null)?->choice();
        $uses = $fitted->part->family->channels($fitted->part);

        foreach ($fitted->part->ports as $port) {
            if ($port->kind === PortKind::Inlet && $this->beyond($outlet, $fitted, $port) !== null) {
                return false;
            }
        }

        // One that is called by another job than the usual one is for that job.
        return $use === null || in_array($use, $uses, true) || ! in_array($use, NamedAlike::words($outlet->name), true);
    }

    /**
     * Where one stop is fitted and nothing runs to it, it goes between what feeds most of what can hurt and all of that.
     */
    private function throughTheStop(): void
    {
        $stops = [];
        foreach ($this->survey->build->fittedThat(Ability::Stops) as $need => $stop) {
            if (isset($stop->part->ports['in'], $stop->part->ports['out'])) {
                $stops[] = (string) $need;
            }
        }
        if (count($stops) !== 1 || isset($this->taken["{$stops[0]}.in"]) || isset($this->taken["{$stops[0]}.out"])) {
            return;
        }
        $sums = [];
        foreach ($this->found as $lead) {
            if (
                $lead->class === 'power' &&
                $this->canHurt($lead->to->need) &&
                $this->survey->build->port($lead->from)?->kind === PortKind::Source
            ) {
                $sums[$lead->from->text()] = ($sums[$lead->from->text()] ?? 0.0) + ($lead->current?->in('A') ?? 0.0);
            }
        }
        arsort($sums);
        $from = PortRef::of((string) array_key_first($sums));
        if ($from === null) {
            return;
        }
        $source = $this->survey->build->fitted($from->need);
        $port = $this->survey->build->port($from);
        $out = new PortRef($stops[0], 'out');
        $this->found = array_map(
            fn (LeadProposal $lead): LeadProposal => $lead->from->text() === $from->text() &&
            $lead->class === 'power' &&
            $this->canHurt($lead->to->need)
                ? $lead->through($out, 'the stop takes it off')
                : $lead,
            $this->found,
        );
        $this->add(
            $from,
            new PortRef($stops[0], 'in'),
            'power',
            Quantity::of(round($sums[$from->text()], 3), 'A'),
            $source === null || $port === null ? null : $source->part->portSpec($port, 'voltage')?->nominal(),
            'the stop comes before all that moves and heats',
        );
    }

    /** Whether what stands there moves, heats or cuts, by itself, through its board or through its switch. */
    private function canHurt(string $need): bool
    {
        $part = $this->survey->build->fitted($need)?->part;
        // A board whose drivers stand by themselves only thinks.
        if (
            $part?->can(Ability::Hurts) === true ||
            ($part?->can(Ability::HasChannels) === true && ! $this->hasOwnDrivers())
        ) {
            return true;
        }
        foreach ($part?->can(Ability::Switches) === true ? $this->found : [] as $lead) {
            if ($lead->from->need === $need && $this->canHurt($lead->to->need)) {
                return true;
            }
        }

        return false;
    }

    private function hasOwnDrivers(): bool
    {
        foreach ($this->survey->build->fittedThat(Ability::FeedsPhases) as $driver) {
            if ($driver->need->seat === null) {
                return true;
            }
        }

        return false;
    }

    /** A module or relay that is named like a load, and whose far side is free. */
    private function switchedFor(Fitted $load): ?PortRef
    {
        $best = null;
        $most = 0;
        foreach ($this->survey->build->allFitted() as $need => $switch) {
            $ports = $switch->part->can(Ability::Switches) && $need !== $load->need->ref ? $switch->part->ports : [];
            foreach ($ports as $port) {
                if ($port->kind === PortKind::Outlet && ! isset($this->taken["{$need}.{$port->name}"])) {
                    $alike = $this->alike($switch, $load);
                    [$best, $most] =
                        $alike > $most ? [new PortRef((string) $need, $port->name), $alike] : [$best, $most];
                }
            }
        }

        return $best;
    }

    /** A free port of what can do that, of the part named most alike. */
    private function spare(string $port, Ability $what, Fitted $for): ?PortRef
    {
        $best = null;
        $most = -1;
        foreach ($this->survey->build->fittedThat($what) as $need => $fitted) {
            $alike = $this->alike($fitted, $for);
            if (isset($fitted->part->ports[$port]) && ! isset($this->taken["{$need}.{$port}"]) && $alike > $most) {
                [$best, $most] = [new PortRef((string) $need, $port), $alike];
            }
        }

        return $best;
    }

    /** How many words two places have in common that are not what the first is anyway. */
    private function alike(Fitted $one, Fitted $other): int
    {
        return count(
            array_diff(
                array_intersect(
                    NamedAlike::words("{$one->need->ref} {$one->need->role}"),
                    NamedAlike::words("{$other->need->ref} {$other->need->role}"),
                ),
                NamedAlike::words($one->part->family->title()),
            ),
        );
    }

    private function role(PortRef $port): string
    {
        return $this->survey->build->roleOf($port->need);
    }
}
