<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Settled;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\PortRef;
use Magpie\Core\Quantity\Quantity;

/** Which thing hangs on which channel of which board: as wired, and as it could be. */
final readonly class PortAllocation implements Settled
{
    /** Channels of one kind on one board that are laid out; a sheet that counts more is a slip of its own. */
    private const MOST = 256;

    /** What a sheet counts → the use it counts. */
    private const COUNTS = [
        'driver_slots' => 'motor',
        'drivers' => 'motor',
        'heater_outputs' => 'heater',
        'fan_outputs' => 'fan',
        'thermistor_inputs' => 'thermistor',
        'switch_inputs' => 'switch',
    ];

    /** What would take one more of a kind. */
    private const CURES = [
        'motor' => 'An expansion board with a driver slot, or two motors in parallel on one driver (half its current each).',
        'heater' => 'A switching module for it, signalled from a free fan or signal output.',
        'fan' => 'A fan that may always run goes straight to its supply; else a switching module, or a tool-head board.',
        'light' => 'The light straight to its supply, with a switch of its own.',
        'thermistor' => 'A tool-head or expansion board with another thermistor input.',
        'switch' => 'Homing without a switch on one axis, or an expansion board.',
        'probe' => 'The probe on a plain switch input, if its level suits.',
        'signal' => 'A free fan or heater output as the signal, if its level suits.',
    ];

    /** @var list<Channel> */
    public array $channels;

    /** @var list<ChannelWish> */
    public array $wishes;

    public ChannelMatching $matching;

    /** @var array<string, string> wish → channel: as many as can be, and each on the one named like it */
    public array $found;

    /** @var array<string, list<array{PortRef, PortRef}>> where leads run from and to, by need */
    private array $leads;

    private bool $hasDrivers;

    /** The one of this survey, made when it is first asked for. */
    public static function of(Survey $survey): self
    {
        return $survey->once(self::class, static fn (Survey $b): self => new self($b));
    }

    public function __construct(private Survey $survey, bool $pinned = true)
    {
        $leads = [];
        foreach ($survey->build->linked() as [$from, $to]) {
            $leads[$from->need][] = [$from, $to];
            if ($to->need !== $from->need) {
                $leads[$to->need][] = [$from, $to];
            }
        }
        $this->leads = $leads;
        $this->hasDrivers = [...$survey->build->fittedThat(Ability::FeedsPhases)] !== [];
        $this->channels = $this->channels();
        $this->wishes = $this->wishes();
        $this->matching = new ChannelMatching($this->wishes, $this->channels, $pinned);
        $this->found = NamedAlike::of($this->wishes, $this->channels, $this->matching->found);
    }

    /**
     * @return list<string> needs of which some piece is in the way of others, each once
     */
    public function blocked(): array
    {
        return array_values(array_unique(array_map($this->needOf(...), $this->matching->blocked)));
    }

    /** The need of a wish, by the wish's ref. */
    private function needOf(string $wish): string
    {
        return explode('/', $wish, 2)[0];
    }

    /**
     * @return list<string> what would cure that some have no channel
     */
    public function cures(): array
    {
        $cures = [];
        foreach ($this->wishes as $wish) {
            if (in_array($wish->ref(), $this->matching->blocked, true)) {
                $cures[self::CURES[$wish->uses[0]]] = true;
            }
        }
        if (
            $this->matching->blocked !== [] &&
            array_filter($this->wishes, static fn (ChannelWish $w): bool => $w->wired !== null) !== []
        ) {
            $free = new ChannelMatching($this->wishes, $this->channels, false);
            if (count($free->found) === count($this->wishes)) {
                $cures = ['Everything fits when leads are moved to other channels.' => true] + $cures;
            }
        }

        return array_map(strval(...), array_keys($cures));
    }

    /**
     * @return array<string, int> use → channels nothing hangs on
     */
    public function spare(): array
    {
        $spare = [];
        $taken = array_flip($this->found);
        foreach ($this->channels as $channel) {
            if ($channel->free() && ! isset($taken[$channel->ref()])) {
                $spare[$channel->use] = ($spare[$channel->use] ?? 0) + 1;
            }
        }

        return $spare;
    }

    /**
     * Where everything goes when a board is changed for another.
     *
     * @return list<array{need: string, role: string, before: string|null, after: string|null}>
     */
    public static function transfer(Survey $survey, string $board, string $part): array
    {
        $now = new self($survey);
        $then = new self(new Survey($survey->build->choosing($board, $part)), false);
        $moves = [];
        foreach ($now->wishes as $wish) {
            $before = $now->found[$wish->ref()] ?? $wish->wired;
            $moves[] = [
                'need' => $wish->ref(),
                'role' => $wish->role,
                'before' => $before,
                'after' => $then->found[$wish->ref()] ?? null,
            ];
        }

        return $moves;
    }

    /**
     * @return array<string, mixed> all a screen needs; voltages in V
     */
    public function toArray(): array
    {
        $taken = array_flip($this->found);
        $wired = [];
        foreach ($this->wishes as $wish) {
            if ($wish->wired !== null) {
                $wired[$wish->ref()] = $wish->wired;
            }
        }

        return [
            'channels' => array_map(function (Channel $c) use ($taken, $wired): array {
                $wish = $taken[$c->ref()] ?? null;
                $load = $wish === null ? null : $this->needOf((string) $wish);
                $bank = $c->bank === null ? null : $this->matching->banks["{$c->board}/{$c->bank}"] ?? null;

                return [
                    'ref' => $c->ref(),
                    'board' => $c->board,
                    'port' => $c->port,
                    'use' => $c->use,
                    'volts' => ($bank ?? $c->voltage)?->in('V'),
                    'bank' => $c->bank,
                    'pin' => $c->pin,
                    'control' => $c->control,
                    'support' => $c->support,
                    'reserved' => $c->reserved,
                    'stated' => $c->stated,
                    'load' => $load,
                    'how' => $wish === null ? null : (($wired[$wish] ?? null) === $c->ref() ? 'wired' : 'proposed'),
                ];
            }, $this->channels),
            'unplaced' => array_values(
                array_map(
                    static fn (ChannelWish $w): array => [
                        'need' => $w->need,
                        'role' => $w->role,
                        'uses' => $w->uses,
                    ],
                    array_filter($this->wishes, fn (ChannelWish $w): bool => ! isset($this->found[$w->ref()])),
                ),
            ),
            'blocked' => $this->blocked(),
            'contested' => $this->matching->contested,
            'cures' => $this->cures(),
            'exact' => $this->matching->exact,
            'spare' => (object) $this->spare(),
            'wishes' => count($this->wishes),
        ];
    }

    /**
     * @return list<Channel>
     */
    private function channels(): array
    {
        $channels = [];
        foreach ($this->survey->build->fittedThat(Ability::HasChannels) as $ref => $board) {
            $stated = [];
            // What hangs behind a link that today's firmware does not speak is no use today.
            $support = $board->part->spec('support')?->choice();
            $support = $support === 'today' ? null : $support;
            foreach ($board->part->ports as $port) {
                $use = $this->text($port, 'use') ?? $this->useByLoad($ref, $port);
                if ($use !== null) {
                    $stated[$use] = ($stated[$use] ?? 0) + 1;
                    $channels[] = new Channel(
                        $ref,
                        $port->name,
                        $use,
                        $this->voltsAt($board, $port),
                        $this->text($port, 'bank'),
                        $this->text($port, 'pin'),
                        $this->text($port, 'control'),
                        $support ?? $this->text($port, 'support'),
                        ($port->specs['reserved'] ?? null)?->flag() === true,
                    );
                }
            }
            foreach (self::COUNTS as $key => $use) {
                $counted = (int) min(self::MOST, $board->part->spec($key)?->nominal()?->in('') ?? 0);
                for ($i = $stated[$use] ?? 0; $i < $counted; $i++) {
                    $channels[] = new Channel($ref, "{$use} ".($i + 1), $use, support: $support, stated: false);
                }
            }
        }

        return $channels;
    }

    private function text(Port $port, string $key): ?string
    {
        $value = ($port->specs[$key] ?? null)?->value;

        return is_string($value) ? $value : null;
    }

    /** A port that says nothing of its use is what hangs on it. */
    private function useByLoad(string $board, Port $port): ?string
    {
        if ($port->kind !== PortKind::Outlet) {
            return null;
        }
        foreach ($this->leads[$board] ?? [] as [$from, $to]) {
            if ($from->text() === "{$board}.{$port->name}") {
                return match ($this->survey->build->need($to->need)?->family) {
                    'motor_driver' => 'motor',
                    'heater', 'switching_module' => 'heater',
                    'fan' => 'fan',
                    'lamp' => 'light',
                    default => null,
                };
            }
        }

        return null;
    }

    private function voltsAt(Fitted $board, Port $port): ?Quantity
    {
        $topology = Circuits::of($this->survey)->topology;
        $own = $board->part->portSpec($port, 'voltage')?->nominal();
        $node = $topology->node("{$board->need->ref}.{$port->name}");
        $source = $own !== null || $node === null ? null : $topology->sourceOf($node);

        return $own ?? ($source === null ? null : Circuits::of($this->survey)->heldBy($source));
    }

    /**
     * @return list<ChannelWish>
     */
    private function wishes(): array
    {
        $build = $this->survey->build;
        $wishes = [];
        foreach ($build->allFitted() as $ref => $fitted) {
            $uses = $this->usesOf($fitted);
            if ($uses === []) {
                continue;
            }
            $job = $fitted->part->spec('job')?->choice();
            $power = in_array($uses[0], ['fan', 'heater', 'light'], true) && ! $fitted->part->can(Ability::Switches);
            $volts = static fn (string $key): ?Quantity => $power ? $fitted->part->spec($key)?->nominal() : null;
            $window = [$volts('min_voltage'), $volts('max_voltage')];
            $wired = $this->wiredTo($ref);
            $pieces = min(self::MOST, $fitted->need->quantity);
            // Pieces that only take power hang on one lead together; each of the others asks for a channel of its own.
            $each = $power && $wired !== null ? 1 : $pieces;
            for ($piece = 1; $piece <= $each; $piece++) {
                $wishes[] = new ChannelWish(
                    $ref,
                    $each === 1 ? $fitted->need->role : $fitted->need->pieceName($piece),
                    $uses,
                    $job === null ? $ref : "fan for {$job}",
                    $window[0] !== null && $window[1] !== null ? [$window[0], $window[1]] : null,
                    $piece === 1 ? $wired : null,
                    $volts('rated_voltage'),
                    $piece,
                );
            }
        }

        return $wishes;
    }

    /**
     * @return list<string> none when it needs no channel
     */
    private function usesOf(Fitted $fitted): array
    {
        $uses = $fitted->part->family->channels($fitted->part);
        $power = array_intersect($uses, ['heater', 'fan', 'light']) !== [] && ! $fitted->part->can(Ability::Switches);

        return match (true) {
            // A motor asks for a channel itself where no driver does it for it.
            $uses === [] && $fitted->part->can(Ability::Drives) => $this->hasDrivers ? [] : ['motor'],
            $power && $this->fedPastABoard($fitted->need->ref) => [],
            default => $uses,
        };
    }

    /** Whether a lead already takes power to it from somewhere else than a board. */
    private function fedPastABoard(string $ref): bool
    {
        foreach ($this->leads[$ref] ?? [] as [$from, $to]) {
            $feeds = $this->survey->build->fitted($from->need);
            if ($to->need === $ref && $to->port === 'power' && $feeds?->part->can(Ability::HasChannels) === false) {
                return true;
            }
        }

        return false;
    }

    private function wiredTo(string $ref): ?string
    {
        $seat = $this->survey->build->need($ref)?->seat;
        [$host, $slot] = explode('.', $seat ?? '', 2) + [1 => ''];
        if ($slot !== '' && $this->survey->build->fitted($host)?->part->can(Ability::HasChannels) === true) {
            return $seat;
        }
        foreach ($this->leads[$ref] ?? [] as [$from, $to]) {
            foreach ([[$from, $to], [$to, $from]] as [$one, $other]) {
                $board = $this->survey->build->fitted($other->need);
                $port = $board?->part->ports[$other->port] ?? null;
                if (
                    $one->need === $ref &&
                    $board !== null &&
                    $port !== null &&
                    $board->part->can(Ability::HasChannels) &&
                    ($this->text($port, 'use') ?? $this->useByLoad($other->need, $port)) !== null
                ) {
                    return $other->text();
                }
            }
        }

        return null;
    }
}
