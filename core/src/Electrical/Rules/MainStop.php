<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Cures\StopBeforeAll;
use Magpie\Core\Electrical\Stops;
use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\OtherPart;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Axis;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E17: what the stops leave live, and whether the main one is a stop at all. */
final class MainStop implements Curable
{
    /** Moving mass in kg, and speed in m/s, from which an axis wants a stop. Common practice, no source. */
    private const HEAVY = 10.0;

    private const FAST = 0.5;

    public function card(): Card
    {
        return new Card(
            'E17',
            'Stops',
            'Does the main stop leave no motion, spindle, torch or heater live, and does nothing start again by itself?',
            Trade::Electrical,
            'ISO 13850 (latching, positive-opening, normally closed); IEC 60204-1 §9.2.3 (from memory): releasing a stop must not restart anything; a switch in its place on a small machine of low voltage: common practice, no source',
            topics: [Topic::Stops],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $stops = Stops::of($survey);
        if ($stops->hazards() !== []) {
            yield new Subject('build', 'stops', 'Main stop', [
                ...array_keys($stops->buttons()),
                ...array_keys($stops->hazards()),
            ]);
            foreach ($stops->buttons() as $ref => $stop) {
                if ((string) $ref !== $stops->main()) {
                    yield new Subject('need', (string) $ref, $stop->need->role, [(string) $ref]);
                }
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $stops = Stops::of($survey);
        foreach ($inquiry->build->fittedThat(Ability::HasCoil) as $relay) {
            // Whether a dead coil opens its contact is what the table rests on.
            $inquiry->tryChoice($relay, 'normally');
            $inquiry->tryChoice($relay, 'kind');
            $inquiry->tryFlag($relay, 'holds_itself');
        }
        $this->ways($inquiry, $survey);
        if ($inquiry->subject->kind === 'need') {
            return $this->other($inquiry, $stops, $inquiry->subject->ref);
        }
        // What nobody has wired may hang on a plug of its own: no stop is known to reach it.
        $fed = $stops->hazards();
        foreach ($inquiry->build->fittedThat(Ability::Hurts) as $ref => $load) {
            if (! isset($fed[$ref])) {
                $inquiry->miss("what feeds {$load->need->role}");
            }
        }
        $main = $stops->main();
        if ($main === null) {
            $inquiry->remark(
                'Can hurt when live: '.
                    implode(', ', array_map(static fn (Fitted $f): string => $f->need->role, $stops->hazards())).
                    '.',
            );

            return $this->without($inquiry, $survey, $stops);
        }
        $stop = $stops->buttons()[$main];
        $wrong = [];
        foreach (
            ['latching' => 'it does not latch', 'positive_opening' => 'its contacts do not open positively'] as $key => $says
        ) {
            if ($this->flag($inquiry, $stop, $key) === false) {
                $wrong[] = $says;
            }
        }
        $state = $stops->state([$main]);
        array_push($wrong, ...$this->restarts($inquiry, $stops, $stop, $state));
        $by = [];
        foreach ($state as $ref => $is) {
            $by[$is][] = $inquiry->build->roleOf($ref);
        }
        foreach ([Stops::OFF => 'Dead', Stops::HELD => 'Fed, but nothing commands it'] as $is => $says) {
            if (isset($by[$is])) {
                $inquiry->remark("{$says} with {$stop->need->role} pressed: ".implode(', ', $by[$is]).'.');
            }
        }
        if (isset($by[Stops::LIVE])) {
            $wrong[] = 'it leaves live: '.implode(', ', $by[Stops::LIVE]);
        }
        if ($wrong !== []) {
            $inquiry->remark("Judged: {$stop->need->role}, which leaves the fewest live.");

            return $inquiry->conclude(Verdict::Danger, "{$stop->need->role}: ".implode('; ', $wrong).'.');
        }
        $held = isset($by[Stops::HELD])
            ? ' '.implode(', ', $by[Stops::HELD]).' stay fed and only lose their command.'
            : '';
        $weak = $this->oneFaultAway($inquiry, $stops, $main, $state);
        if ($weak !== []) {
            return $inquiry->conclude(
                Verdict::Tight,
                "{$stop->need->role} leaves nothing that can hurt live, but ".implode('; ', $weak).'.',
            );
        }

        return $inquiry->conclude(Verdict::Holds, "{$stop->need->role} leaves nothing that can hurt live.{$held}");
    }

    /** How boards switch what hangs on them decides what dies with them. */
    private function ways(Inquiry $inquiry, Survey $survey): void
    {
        $topology = Circuits::of($survey)->topology;
        foreach ($inquiry->build->fittedThat(Ability::HasChannels) as $ref => $board) {
            foreach ($board->part->ports as $port) {
                if ($port->kind === PortKind::Outlet && $topology->leadsFrom("{$ref}.{$port->name}") !== []) {
                    $inquiry->tryPortWord($board, $port, 'control') ?? $inquiry->tryPortWord($board, $port, 'use');
                }
            }
        }
    }

    /**
     * No stop at all: a danger where a spindle, torch, arc, mains heat or a heavy or fast axis is to be stopped; on a small
     * machine of low voltage a switch within reach that takes the power from everything is what is usual.
     */
    private function without(Inquiry $inquiry, Survey $survey, Stops $stops): Finding
    {
        $count = count($stops->hazards());
        $grave = [];
        foreach ($stops->hazards() as $ref => $fitted) {
            $mains = array_filter(
                $fitted->part->ports,
                static fn (Port $p): bool => $p->mains && $p->kind->carriesPower(),
            );
            if ($fitted->part->family->hazard()?->strikes() === true || $mains !== []) {
                $grave[] = $fitted->need->role;
            }
        }
        foreach ($inquiry->build->axes as $ref => $axis) {
            $moved = self::moved($inquiry, $axis);
            if (! $moved->isPositive()) {
                $inquiry->miss("the mass that moves with {$axis->name}", "axes/{$ref}/drive/mass");
            }
            if ($axis->drive->topSpeed === null) {
                $inquiry->miss("the top speed of {$axis->name}", "axes/{$ref}/drive/top_speed");
            }
            if (
                $moved->exceeds(Quantity::of(self::HEAVY, 'kg')) ||
                $axis->drive->topSpeed?->exceeds(Quantity::of(self::FAST, 'm/s')) === true
            ) {
                $grave[] = $axis->name;
            }
        }
        $switch = $this->switchOfAll($inquiry, $survey);
        if ($grave !== [] || $switch === null) {
            return $inquiry->conclude(
                Verdict::Danger,
                "There is no stop, and {$count} loads that can hurt".
                    ($grave === []
                        ? ', nor a switch that takes the power from all of them.'
                        : ': '.implode(', ', $grave).' among them.'),
            );
        }

        return $inquiry->conclude(
            Verdict::Tight,
            "There is no stop. {$switch} takes the power from all {$count} loads that can hurt, as is usual on a machine so small: keep it within reach of whoever stands at it.",
        );
    }

    /** What moves with an axis as far as it is known: as it is said, or all it carries where that is more. */
    private static function moved(Inquiry $inquiry, Axis $axis): Quantity
    {
        $sum = Quantity::of(0, 'kg');
        foreach ($axis->drive->carries as $ref) {
            $carried = $inquiry->build->fitted($ref);
            $mass = $carried === null ? null : $inquiry->tryRead($carried, 'mass', "m_{$ref}", Bound::Highest);
            $sum = $mass === null || $carried === null ? $sum : $sum->plus($mass->times($carried->need->quantity));
        }

        $said =
            $axis->drive->mass === null
                ? null
                : $inquiry->given(
                    "mass that moves with {$axis->name}",
                    'm',
                    $axis->drive->mass,
                    $axis->drive->evidence,
                    "axes/{$axis->ref}/drive/mass",
                );

        return Quantity::max($sum, $said ?? $sum);
    }

    /** The one switch behind which everything stands: in the inlet, on the only supply, or its plug. */
    private function switchOfAll(Inquiry $inquiry, Survey $survey): ?string
    {
        $plugs = array_values([...$survey->build->fittedThat(Ability::HasOwnPlug)]);
        if ($plugs !== []) {
            $alone =
                count($plugs) === 1 &&
                $plugs[0]->need->quantity === 1 &&
                [...$survey->build->fittedThat(Ability::TakesMains)] === [];

            return $alone ? "The plug of {$plugs[0]->need->role}" : null;
        }
        foreach (['switch' => Ability::TakesMains, 'own_switch' => Ability::Supplies] as $key => $what) {
            $all = [...$survey->build->fittedThat($what)];
            $one = reset($all);
            if (count($all) === 1 && $one !== false && $inquiry->tryFlag($one, $key) === true) {
                return "The switch of {$one->need->role}";
            }
        }

        return null;
    }

    /** A stop beside the main one: it may leave much alive, but what it stops must stay stopped. */
    private function other(Inquiry $inquiry, Stops $stops, string $ref): Finding
    {
        $stop = $stops->buttons()[$ref];
        $before = $stops->state([]);
        $stopped = [];
        $state = $stops->state([$ref]);
        foreach ($state as $load => $is) {
            if ($is !== Stops::LIVE && $before[$load] === Stops::LIVE) {
                $stopped[] = $inquiry->build->roleOf($load);
            }
        }
        if ($stopped === []) {
            $inquiry->remark('Pressed alone it leaves everything that can hurt as it was.');

            return $inquiry->conclude(Verdict::Fails, "{$stop->need->role} stops nothing that can hurt.");
        }
        $inquiry->remark(
            "{$stop->need->role} stops: ".implode(', ', $stopped).'. The main stop is judged by itself.',
        );
        $wrong = $this->restarts($inquiry, $stops, $stop, $state);
        if ($this->flag($inquiry, $stop, 'latching') === false) {
            $wrong[] = 'it does not latch';
        }

        return $wrong === []
            ? $inquiry->conclude(
                Verdict::Holds,
                "{$stop->need->role} stops ".implode(', ', $stopped).', and they stay stopped.',
            )
            : $inquiry->conclude(Verdict::Danger, "{$stop->need->role}: ".implode('; ', $wrong).'.');
    }

    /**
     * What a welded contact leaves live, and what starts when the power comes back: judged where it strikes at once.
     *
     * @param  array<string, string>  $stopped
     * @return list<string>
     */
    private function oneFaultAway(Inquiry $inquiry, Stops $stops, string $main, array $stopped): array
    {
        $strikes = static fn (string $ref): bool => $inquiry->build
            ->fitted($ref)
            ?->part->family->hazard()
            ?->strikes() === true;
        $weak = [];
        foreach ($stops->welded($main, $stopped) as $switch => $live) {
            $says = "welded, {$inquiry->build->roleOf((string) $switch)} leaves live: ".$this->roles($inquiry, $live);
            if (array_filter($live, $strikes) === []) {
                $inquiry->remark(ucfirst($says).'.');
            } else {
                $weak[] = $says;
            }
        }
        $starting = array_filter($stops->startingWithThePower(), $strikes);
        if ($starting !== []) {
            $weak[] =
                $this->roles($inquiry, array_values($starting)).
                ' starts by itself when the power comes back: a contactor that holds itself, or a switch with a no-volt release, keeps it off';
        }

        return $weak;
    }

    /**
     * @param  list<string>  $needs
     */
    private function roles(Inquiry $inquiry, array $needs): string
    {
        return implode(', ', array_map($inquiry->build->roleOf(...), $needs));
    }

    /**
     * @param  array<string, string>  $stopped  state with it pressed
     * @return list<string> what lets a stop fail unseen, or starts again what it stopped
     */
    private function restarts(Inquiry $inquiry, Stops $stops, Fitted $stop, array $stopped): array
    {
        $wrong = [];
        $normally =
            $inquiry->tryChoice($stop, 'normally') ??
            $inquiry->miss("contact at rest of {$stop->need->role}", "parts/{$stop->part->ref}/specs/normally");
        if ($normally === 'open') {
            $wrong[] = 'its contact is open at rest: a broken wire disables it';
        }
        $reset = $inquiry->tryFlag($stop, 'separate_reset');
        $again = $stops->restarting($stop->need->ref, $stopped);
        if ($again === []) {
            $inquiry->remark('Nothing starts again when it is released: what commands it has to be started first.');

            return $wrong;
        }
        if ($reset === null) {
            $inquiry->miss(
                "whether {$stop->need->role} stays off when released, with a reset of its own",
                "parts/{$stop->part->ref}/specs/separate_reset",
            );
        } else {
            $wrong[] = 'releasing it starts '.$this->roles($inquiry, $again);
        }

        return $wrong;
    }

    private function flag(Inquiry $inquiry, Fitted $stop, string $key): ?bool
    {
        $flag = $inquiry->tryFlag($stop, $key);
        if ($flag === null) {
            $inquiry->miss(
                lcfirst($stop->part->family->field($key)->label ?? $key).' of '.$stop->need->role,
                "parts/{$stop->part->ref}/specs/{$key}",
            );
        }

        return $flag;
    }

    public function cures(): array
    {
        return [new OtherPart, new StopBeforeAll];
    }

    public function examples(): Examples
    {
        return new Examples(static fn (): array => self::bed('bed'), static fn (): array => self::bed('stop'));
    }

    /**
     * A heater behind a stop, or beside it.
     *
     * @param  array<string, string|bool>  $button
     * @return array<string, mixed>
     */
    public static function bed(string $behind, array $button = []): array
    {
        return Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '20 A']),
                Examples::part(
                    'stop',
                    'stop_button',
                    $button + [
                        'latching' => true,
                        'positive_opening' => true,
                        'normally' => 'closed',
                        'separate_reset' => true,
                        'rated_current' => '10 A',
                    ],
                ),
                Examples::part('bed', 'heater', ['rated_voltage' => '24 V', 'rated_power' => '96 W']),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'stop.in'],
                    ['ref' => 'W2', 'from' => $behind === 'stop' ? 'stop.out' : 'psu.out', 'to' => 'bed.power'],
                ],
            ],
        );
    }
}
