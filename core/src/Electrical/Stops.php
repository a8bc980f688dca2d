<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Carried;
use Magpie\Core\Inspection\CarriedOver;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\PortRef;

/**
 * The truth table of the stops: which loads that can hurt are live with which stop pressed, drawn from the network. A
 * stop opens its own way through; a module or relay opens when what commands it is dead. Everything is taken as
 * commanded on, which is the worst a stop can meet.
 */
final readonly class Stops implements Carried
{
    public const LIVE = 'live';

    /** Fed, but what would command it is dead. */
    public const HELD = 'no command';

    public const OFF = 'off';

    /** The one of this survey, made when it is first asked for. */
    public static function of(Survey $survey): self
    {
        return $survey->once(self::class, static fn (Survey $b): self => new self(Circuits::of($b)->topology));
    }

    public function __construct(private Topology $topology)
    {
    }

    /** It works out everything when it is asked. */
    public function carriedTo(Survey $survey, array $changed, bool $stands): CarriedOver
    {
        return new CarriedOver(new self(Circuits::of($survey)->topology), []);
    }

    /**
     * @return array<string, Fitted> by need
     */
    public function buttons(): array
    {
        return [...$this->topology->build()->fittedThat(Ability::Stops)];
    }

    /**
     * @return array<string, Fitted> by need, those that some lead or slot feeds
     */
    public function hazards(): array
    {
        return array_filter(
            [...$this->topology->build()->fittedThat(Ability::Hurts)],
            fn (Fitted $f): bool => $this->inlets($f) !== [],
        );
    }

    /**
     * State of every load that can hurt while these stops are pressed.
     *
     * @param  list<string>  $pressed  needs of stop buttons
     * @return array<string, string> need → LIVE, HELD or OFF
     */
    public function state(array $pressed): array
    {
        $fed = $this->fed($pressed);
        $state = [];
        foreach ($this->hazards() as $ref => $fitted) {
            $live = array_filter($this->inlets($fitted), static fn (int $node): bool => isset($fed[$node]));
            $state[$ref] = match (true) {
                $live === [] => self::OFF,
                $this->commanded($fitted, $fed) => self::LIVE,
                default => self::HELD,
            };
        }

        return $state;
    }

    /**
     * @return array{stops: list<array{ref: string, role: string}>, loads: list<array{ref: string, role: string,
     *     family: string}>, states: list<array{pressed: list<string>, loads: array<string, string>}>,
     *     main: string|null}
     */
    public function toArray(): array
    {
        $buttons = $this->buttons();
        $states = [[]];
        foreach (array_keys($buttons) as $ref) {
            $states[] = [(string) $ref];
        }
        if (count($buttons) > 1) {
            $states[] = array_map(strval(...), array_keys($buttons));
        }

        return [
            'stops' => array_values(
                array_map(static fn (Fitted $f): array => ['ref' => $f->need->ref, 'role' => $f->need->role], $buttons),
            ),
            'loads' => array_values(
                array_map(
                    static fn (Fitted $f): array => [
                        'ref' => $f->need->ref,
                        'role' => $f->need->role,
                        'family' => $f->part->family->title(),
                    ],
                    $this->hazards(),
                ),
            ),
            'states' => array_map(
                fn (array $pressed): array => ['pressed' => $pressed, 'loads' => $this->state($pressed)],
                $states,
            ),
            'main' => $this->main(),
        ];
    }

    /** Whether all a stop feeds are safety relays, which stay off until they are reset. */
    public function latched(Fitted $stop): bool
    {
        $latched = false;
        foreach ($this->topology->leadsFrom("{$stop->need->ref}.out") as $lead) {
            $coil = $lead->to->port === 'coil' ? $this->topology->build()->fitted($lead->to->need) : null;
            if ($coil === null && ! $this->topology->carries($lead->ref)) {
                // A signal tells that it is pressed, and feeds nothing.
                continue;
            }
            if ($coil?->part->spec('kind')?->choice() !== 'safety') {
                return false;
            }
            $latched = true;
        }

        return $latched;
    }

    /** The stop that leaves the fewest live; null when there is none. */
    public function main(): ?string
    {
        $best = $fewest = null;
        foreach (array_keys($this->buttons()) as $ref) {
            $live = count(array_keys($this->state([(string) $ref]), self::LIVE, true));
            if ($fewest === null || $live < $fewest) {
                [$best, $fewest] = [(string) $ref, $live];
            }
        }

        return $best;
    }

    /**
     * Nodes that some source still feeds, and those behind a supply that is fed itself.
     *
     * @param  list<string>  $pressed
     * @return array<int, true>
     */
    private function fed(array $pressed): array
    {
        $open = [];
        do {
            $fed = $this->reached($pressed, $open);
            $before = count($open);
            foreach ($this->topology->build()->fittedThat(Ability::Switches) as $ref => $fitted) {
                // A contact that is closed at rest closes when its command dies: nothing is stopped by it.
                $closes = $fitted->part->spec('normally')?->choice() === 'closed';
                if (! $closes && ! isset($open[$ref]) && ! $this->commanded($fitted, $fed)) {
                    $open[$ref] = true;
                }
            }
        } while (count($open) > $before);

        return $fed;
    }

    /**
     * @param  list<string>  $pressed
     * @param  array<string, true>  $open  modules and relays that nothing commands
     * @return array<int, true>
     */
    private function reached(array $pressed, array $open): array
    {
        $fed = $queue = [];
        foreach ($this->topology->each() as $node => [$fitted, $port]) {
            // A source without an inlet of its own is the wall; others wait until their inlet is fed.
            if ($port->kind === PortKind::Source && $this->inlets($fitted) === []) {
                $queue[] = $node;
            }
        }
        while ($queue !== []) {
            $node = array_pop($queue);
            if (isset($fed[$node])) {
                continue;
            }
            $fed[$node] = true;
            [$fitted, $port] = $this->topology->at($node);
            foreach ($this->topology->around($node) as $index => $other) {
                $through = $this->topology->joints[$index]->lead === null;
                if (! $through || (! in_array($fitted->need->ref, $pressed, true) && ! isset($open[$fitted->need->ref]))) {
                    $queue[] = $other;
                }
            }
            if ($port->kind === PortKind::Inlet) {
                foreach ($this->topology->each() as $source => [$its, $itsPort]) {
                    if ($its->need->ref === $fitted->need->ref && $itsPort->kind === PortKind::Source) {
                        $queue[] = $source;
                    }
                }
            }
        }

        return $fed;
    }

    /**
     * Whether something that is alive still commands it; a part without a control lead is taken as commanded.
     *
     * @param  array<int, true>  $fed
     */
    private function commanded(Fitted $fitted, array $fed): bool
    {
        $commanded = null;
        foreach ($this->topology->build()->leads as $lead) {
            foreach ([[$lead->from, $lead->to], [$lead->to, $lead->from]] as [$one, $other]) {
                $port = $fitted->part->ports[$one->port] ?? null;
                if (
                    $one->need === $fitted->need->ref &&
                    $port?->kind === PortKind::Signal &&
                    in_array($one->port, ['control', 'coil', 'run', 'torch'], true)
                ) {
                    $commanded = $commanded === true || $this->speaks($other, $fed);
                }
            }
        }

        return $commanded ?? true;
    }

    /**
     * Whether a command can come from a port: one that passes power on, such as the far side of a stop in the circuit of
     * a coil, only while it is fed; a signal while whatever gives it is.
     *
     * @param  array<int, true>  $fed
     */
    private function speaks(PortRef $from, array $fed): bool
    {
        $node = $this->topology->node($from->text());
        if ($node !== null) {
            return isset($fed[$node]);
        }
        $fitted = $this->topology->build()->fitted($from->need);
        $inlets = $fitted === null ? [] : $this->inlets($fitted);

        // A commander with no power inlet, such as a plain switch, is never dead.
        return $inlets === [] || array_filter($inlets, static fn (int $n): bool => isset($fed[$n])) !== [];
    }

    /**
     * @return list<int> nodes of its power inlets that some lead or slot feeds
     */
    private function inlets(Fitted $fitted): array
    {
        $inlets = [];
        foreach ($fitted->part->ports as $port) {
            $node = $this->topology->node("{$fitted->need->ref}.{$port->name}");
            if ($port->kind === PortKind::Inlet && $node !== null && $this->topology->isReached($node)) {
                $inlets[] = $node;
            }
        }

        return $inlets;
    }
}
