<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Carried;
use Magpie\Core\Inspection\CarriedOver;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Hazard;
use Magpie\Core\Machine\Lead;

/**
 * The truth table of the stops: which loads that can hurt are live at rest, with each stop pressed and released again,
 * with a contact welded or a wire broken, and once the power is back, everything commanded on.
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
        return array_filter([...$this->topology->build()->fittedThat(Ability::Hurts)], $this->isReached(...));
    }

    /**
     * State of every load that can hurt while these stops are pressed.
     *
     * @param  list<string>  $pressed  needs of stop buttons
     * @return array<string, string> need → LIVE, HELD or OFF
     */
    public function state(array $pressed): array
    {
        return $this->told($this->running()->with($pressed));
    }

    /**
     * What runs again once a stop is released, with nobody starting it.
     *
     * @param  array<string, string>  $stopped  state with the stop pressed
     * @return list<string> needs of loads that can hurt
     */
    public function restarting(string $stop, array $stopped): array
    {
        return self::newlyLive(
            $this->told(
                $this->running()
                    ->with([$stop])
                    ->with([]),
            ),
            $stopped,
        );
    }

    /**
     * @return list<string> needs of loads that can hurt and run by themselves when the power comes back
     */
    public function startingWithThePower(): array
    {
        return self::newlyLive($this->told($this->running()->powerBack()), []);
    }

    /**
     * What a stop leaves live when one contact it relies on is welded.
     *
     * @param  array<string, string>  $stopped  state with the stop pressed
     * @return array<string, list<string>> need of the switch → needs of loads
     */
    public function welded(string $stop, array $stopped): array
    {
        $welded = [];
        $running = $this->running();
        $pressed = $running->with([$stop]);
        foreach ($this->topology->build()->fittedThat(Ability::Switches) as $ref => $switch) {
            // A safety relay has a second contact behind the first, and does not start with one of them welded.
            if ($switch->part->spec('kind')?->choice() === 'safety' || $pressed->commands($switch)) {
                continue;
            }
            $state = $this->told($running->with([$stop], welded: [(string) $ref]));
            $welded[(string) $ref] = self::newlyLive($state, $stopped);
        }

        return array_filter($welded);
    }

    /**
     * @return array{stops: list<array{ref: string, role: string}>, loads: list<array{ref: string, role: string,
     *     family: string, hazard: string}>, states: list<array{kind: string, of: list<string>, pressed: list<string>,
     *     loads: array<string, string>, board: bool|null, position: bool|null, supplies: list<string>}>,
     *     main: string|null}
     */
    public function toArray(): array
    {
        $buttons = array_map(strval(...), array_keys($this->buttons()));
        $main = $this->main();
        $running = $this->running();
        $states = [$this->row('rest', [], [], $running)];
        foreach ($buttons as $ref) {
            $states[] = $this->row('pressed', [$ref], [$ref], $running->with([$ref]));
            $states[] = $this->row('released', [$ref], [], $running->with([$ref])->with([]));
            $states[] = $this->row('broken', [$ref], [], $this->withoutItsWires($ref));
        }
        if (count($buttons) > 1) {
            $states[] = $this->row('pressed', $buttons, $buttons, $running->with($buttons));
        }
        if ($main !== null) {
            $stopped = $this->state([$main]);
            foreach (array_keys($this->welded($main, $stopped)) as $ref) {
                $state = $running->with([$main], welded: [(string) $ref]);
                $states[] = $this->row('welded', [(string) $ref], [$main], $state);
            }
        }
        foreach ($this->hazards() as $ref => $fitted) {
            if ($fitted->part->family->hazard() === Hazard::Motion) {
                $states[] = $this->row('fault', [(string) $ref], [], $running->faulted((string) $ref));
            }
        }
        $states[] = $this->row('power back', [], [], $running->powerBack());

        return [
            'stops' => array_values(
                array_map(
                    static fn (Fitted $f): array => ['ref' => $f->need->ref, 'role' => $f->need->role],
                    $this->buttons(),
                ),
            ),
            'loads' => array_values(
                array_map(
                    static fn (Fitted $f): array => [
                        'ref' => $f->need->ref,
                        'role' => $f->need->role,
                        'family' => $f->part->family->title(),
                        'hazard' => $f->part->family->hazard()->value ?? Hazard::Motion->value,
                    ],
                    $this->hazards(),
                ),
            ),
            'states' => $states,
            'main' => $main,
        ];
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

    /** A wire at a stop is broken: one that closes to stop is out of use, and nobody sees it. */
    private function withoutItsWires(string $stop): Control
    {
        if ($this->topology->build()->fitted($stop)?->part->spec('normally')?->choice() === 'open') {
            return $this->running();
        }
        $leads = [...$this->topology->leadsTo("{$stop}.in"), ...$this->topology->leadsFrom("{$stop}.out")];

        return $this->running()->with([], broken: array_map(static fn (Lead $lead): string => $lead->ref, $leads));
    }

    private function running(): Control
    {
        return Control::running($this->topology);
    }

    private function isReached(Fitted $fitted): bool
    {
        return array_filter($this->topology->nodesOf($fitted->need->ref), $this->topology->isReached(...)) !== [];
    }

    /**
     * @return array<string, string> need → LIVE, HELD or OFF
     */
    private function told(Control $control): array
    {
        return array_map(
            static fn (Fitted $fitted): string => match (true) {
                ! $control->isFed($fitted) => self::OFF,
                $control->commands($fitted) => self::LIVE,
                default => self::HELD,
            },
            $this->hazards(),
        );
    }

    /**
     * @param  array<string, string>  $state
     * @param  array<string, string>  $before
     * @return list<string>
     */
    private static function newlyLive(array $state, array $before): array
    {
        $live = array_filter(
            $state,
            static fn (string $is, string $ref): bool => $is === self::LIVE && ($before[$ref] ?? '') !== self::LIVE,
            ARRAY_FILTER_USE_BOTH,
        );

        return array_map(strval(...), array_keys($live));
    }

    /**
     * @param  list<string>  $of  stops, switch or driver it is about
     * @param  list<string>  $pressed
     * @return array{kind: string, of: list<string>, pressed: list<string>, loads: array<string, string>,
     *     board: bool|null, position: bool|null, supplies: list<string>}
     */
    private function row(string $kind, array $of, array $pressed, Control $control): array
    {
        $build = $this->topology->build();
        $boards = array_filter([...$build->fittedThat(Ability::HasChannels)], $this->isReached(...));
        $movers = array_filter(
            $this->hazards(),
            static fn (Fitted $f): bool => $f->part->family->hazard() === Hazard::Motion,
        );
        $all = static fn (array $of, callable $are): ?bool => $of === []
            ? null
            : count(array_filter($of, $are)) === count($of);
        $runs = $all($boards, $control->runs(...));

        return [
            'kind' => $kind,
            'of' => $of,
            'pressed' => $pressed,
            'loads' => $this->told($control),
            'board' => $runs,
            // A motor that has no current or is in fault is pushed away, and a board that starts anew does not know where it is.
            'position' => $movers === []
                    ? null
                    : $kind !== 'fault' && $runs !== false && $all($movers, $control->isFed(...)) === true,
            'supplies' => array_values(
                array_map(
                    static fn (Fitted $f): string => $f->need->role,
                    array_filter([...$build->fittedThat(Ability::Converts)], $control->isFed(...)),
                ),
            ),
        ];
    }
}
