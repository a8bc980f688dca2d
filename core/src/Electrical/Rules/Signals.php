<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Cures\IsolatorBetween;
use Magpie\Core\Electrical\HeldVoltage;
use Magpie\Core\Electrical\PowerLeads;
use Magpie\Core\Electrical\SignalLine;
use Magpie\Core\Electrical\SwitchKind;
use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E11: what one end of a signal lead says, against what the other understands. */
final class Signals implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E11',
            'Signal',
            'Does the input understand this signal, and does it survive it?',
            Trade::Electrical,
            '70 % of the logic level reads as high (CMOS input, from memory); contacts and sinking outputs need a pull-up; a protected input is proven by a test: common practice, no source',
            topics: [Topic::ChannelUse],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->leads as $lead) {
            if (SignalLine::of($survey->build, $lead) !== null) {
                yield PowerLeads::subject($lead, $survey);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $line = SignalLine::of($inquiry->build, PowerLeads::named($inquiry)) ?? $inquiry->lack('who speaks on it');

        $to = $line->to->part;

        return match (true) {
            $to->can(Ability::HasCoil) => $this->coil($inquiry, $line),
            $to->can(Ability::Switches) => $this->module($inquiry, $line),
            $to->can(Ability::FeedsPhases) => $this->driver($inquiry, $line),
            $to->can(Ability::Arcs) => $this->torch($inquiry, $line),
            default => $this->sensed($inquiry, $survey, $line),
        };
    }

    public function cures(): array
    {
        return [new IsolatorBetween];
    }

    public function examples(): Examples
    {
        return new Examples(
            static fn (): array => self::probe('push-pull', '24 V'),
            static fn (): array => self::probe('sinking', '24 V'),
        );
    }

    /**
     * A probe on a 3.3 V input with a pull-up.
     *
     * @param  array<string, string|bool>  $input
     * @param  bool|null  $lifts  whether it has a pull-up of its own
     * @return array<string, mixed>
     */
    public static function probe(string $output, string $volts, array $input = [], ?bool $lifts = false): array
    {
        [$part, $need] = Examples::part('board', 'controller_board', ['logic_voltage' => '3.3 V']);
        $part['ports'] = [
            [
                'name' => 'probe',
                'kind' => 'signal',
                'specs' => Examples::sheet($input + ['use' => 'probe', 'pull_up' => true, 'input' => 'none']),
            ],
        ];

        return Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => $volts, 'rated_current' => '2 A']),
                [$part, $need],
                Examples::part('probe', 'probe', [
                    'output' => $output,
                    ...$lifts === null ? [] : ['own_pull_up' => $lifts],
                    'min_voltage' => '3 V',
                    'max_voltage' => '30 V',
                    'rated_current' => '10 mA',
                ]),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'probe.power'],
                    ['ref' => 'W2', 'from' => 'probe.signal', 'to' => 'board.probe'],
                ],
            ],
        );
    }

    private function sensed(Inquiry $inquiry, Survey $survey, SignalLine $line): Finding
    {
        if (! $line->isContact() && $inquiry->tryChoice($line->from, 'output') === null) {
            $inquiry->miss("output of {$line->from->need->role}", "parts/{$line->from->part->ref}/specs/output");
            throw new InputMissing;
        }

        return match ($line->output()) {
            'contact' => $this->pulled($inquiry, $line, 'A contact'),
            'sinking' => $this->lifted($inquiry, $survey, $line) ?? $this->pulled($inquiry, $line, 'A sinking output'),
            default => $this->driven($inquiry, $survey, $line),
        };
    }

    /** What can only pull an input down: something has to bring it back. */
    private function pulled(Inquiry $inquiry, SignalLine $line, string $what): Finding
    {
        $at = self::at($line);
        $where = self::where($line);
        if ($what !== 'A contact' && $inquiry->tryFlag($line->from, 'own_pull_up') === true) {
            return $inquiry->conclude(
                Verdict::Holds,
                "{$line->from->need->role} pulls {$at} down; its own pull-up brings it back.",
            );
        }
        $pull = $inquiry->tryPortWord($line->to, $line->in, 'pull_up');
        if ($pull?->flag() === null) {
            $inquiry->miss("whether {$at} has a pull-up", "{$where}/pull_up");
            throw new InputMissing;
        }
        $inquiry->remark(
            "{$what} pulls {$at} to common; its level is the input's own. The input has ".
                ($pull->flag() ? 'a pull-up' : 'no pull-up').
                " ({$pull->evidence->label()}).",
        );
        if ($pull->evidence->isWeakerThan($inquiry->card->asks)) {
            $inquiry->miss(
                "a better word than a {$pull->evidence->label()} for the pull-up of {$at}",
                "{$where}/pull_up",
            );
        }

        return $pull->flag() === true
            ? $inquiry->conclude(
                Verdict::Holds,
                "{$line->from->need->role} pulls {$at} down; its pull-up brings it back.",
            )
            : $inquiry->conclude(
                Verdict::Fails,
                "Nothing brings {$at} back up: {$line->from->need->role} can only pull it down.",
            );
    }

    /**
     * A sinking output with a resistor of its own to its supply lifts the input to that supply while it does not pull. Many have one,
     * and do not say so.
     *
     * @return Finding|null null where it cannot lift it too high
     */
    private function lifted(Inquiry $inquiry, Survey $survey, SignalLine $line): ?Finding
    {
        $own = $inquiry->tryFlag($line->from, 'own_pull_up');
        if ($own === false || $line->from->part->family->field('own_pull_up') === null) {
            return null;
        }
        [, $volts] = $this->supplyOf($inquiry, $survey, $line);
        [$limit, $said] = $this->stands($inquiry, $line);
        if ($own === true) {
            return $this->burns($inquiry, $line, $volts, $limit, $said);
        }
        $isolated = ! $said && $inquiry->tryPortWord($line->to, $line->in, 'input')?->choice() === 'isolated';
        if (! $isolated && $volts->exceeds($limit)) {
            $inquiry->miss(
                "whether {$line->from->need->role} has a pull-up of its own to {$volts}, which ".self::at($line).
                    " does not stand ({$limit}): a meter from its open output to common shows it",
                "parts/{$line->from->part->ref}/specs/own_pull_up",
            );
        }

        return null;
    }

    private static function at(SignalLine $line): string
    {
        return "{$line->to->need->role}, port {$line->in->name}";
    }

    private static function where(SignalLine $line): string
    {
        return "parts/{$line->to->part->ref}/ports/{$line->in->name}/specs";
    }

    /**
     * What an input is said to stand is all it stands; one that only names its logic stands its supply, a tenth over it.
     *
     * @return array{Quantity, bool} the most it stands, and whether the port itself says so
     */
    private function stands(Inquiry $inquiry, SignalLine $line): array
    {
        $high = $inquiry->tryPort($line->to, $line->in, 'max_voltage', 'V_max', Bound::Lowest);
        $logic = $inquiry->tryRead($line->to, 'logic_voltage', 'V_L');
        if ($high === null && $logic !== null) {
            $most = $logic->times(1.1);

            return [
                $inquiry->work('What an input of this logic stands', 'V_max = 1.1 × V_L', ['V_L' => $logic], $most, 'V'),
                false,
            ];
        }

        return [$high ?? $inquiry->port($line->to, $line->in, 'max_voltage', 'V_max', Bound::Lowest), true];
    }

    /** What an input makes of a level above what it stands; null where it stands it. */
    private function burns(Inquiry $inquiry, SignalLine $line, Quantity $volts, Quantity $limit, bool $said): ?Finding
    {
        $guard = $inquiry->tryPortWord($line->to, $line->in, 'input');
        if (! $volts->exceeds($limit)) {
            return null;
        }
        $at = self::at($line);
        // What a guard stands is another matter than the logic behind it; what the port itself is said to stand is not.
        $guarded = $said ? null : $guard?->choice();
        if ($guarded === 'isolated' && ! $guard->evidence->isWeakerThan($inquiry->card->asks)) {
            $inquiry->miss("highest voltage of {$at}, which is isolated", self::where($line).'/max_voltage');

            return $inquiry->conclude(Verdict::Holds, "{$volts} into an isolated input.");
        }

        return $guarded === 'protected'
            ? $this->protected($inquiry, $line, $volts)
            : $inquiry->conclude(
                Verdict::Danger,
                "{$line->from->need->role} puts {$volts} on {$at}, which stands {$limit}. It burns. An isolating stage, or a ".
                    ($line->output() === 'sinking' ? 'sensor without a pull-up of its own.' : 'sensor that sinks.'),
                $inquiry->margin($volts, $limit),
                "{$limit}",
            );
    }

    private function protected(Inquiry $inquiry, SignalLine $line, Quantity $volts): Finding
    {
        $tested = $inquiry->tryPortWord($line->to, $line->in, 'tested');
        if ($tested?->flag() === false) {
            return $inquiry->conclude(
                Verdict::Fails,
                "{$volts} into a protected input, and the pair was tested: it does not trip.",
            );
        }
        if ($tested?->flag() === true && $tested->evidence === Evidence::Measured) {
            return $inquiry->conclude(Verdict::Holds, "{$volts} into a protected input, and the pair was tested.");
        }
        $inquiry->missUntil(
            Stage::Powered,
            "a test of this pair: a protected input may drop so much that {$line->from->need->role} never trips",
            self::where($line).'/tested',
        );

        return $inquiry->conclude(
            Verdict::Tight,
            "{$volts} into a protected input. Keep one plain input free to fall back on.",
        );
    }

    /** What puts its own supply on the input: it must neither burn it, nor be too low to read as high, nor stay there for ever. */
    private function driven(Inquiry $inquiry, Survey $survey, SignalLine $line): Finding
    {
        $at = self::at($line);
        [$low, $volts] = $this->supplyOf($inquiry, $survey, $line);
        $inquiry->work('Level of its output', 'V_o = V_s', ['V_s' => $volts], $volts, 'V');
        [$limit, $said] = $this->stands($inquiry, $line);
        $burns = $this->burns($inquiry, $line, $volts, $limit, $said);
        $stuck = $line->output() === 'sourcing' ? $this->stuck($inquiry, $line) : null;
        $first = $burns?->verdict === Verdict::Danger ? $burns : $stuck ?? $burns;
        if ($first !== null) {
            return $first;
        }
        $least = $inquiry->tryPort($line->to, $line->in, 'min_voltage', 'V_min', Bound::Highest);
        if ($least !== null && $low->isBelow($least)) {
            return $inquiry->conclude(
                Verdict::Fails,
                "{$low} never reads as high on {$at}: it asks for {$least}.",
                null,
                "at least {$least}",
            );
        }
        $logic = $inquiry->tryRead($line->to, 'logic_voltage', 'V_L');
        if ($logic !== null && $low->isBelow($logic->times(0.7))) {
            return $inquiry->conclude(
                Verdict::Fails,
                "{$low} never reads as high on a {$logic} input.",
                null,
                "70 % of {$logic}",
            );
        }

        return $inquiry->conclude(
            Verdict::Holds,
            "{$volts} on {$at}, which stands {$limit}.",
            $inquiry->margin($volts, $limit),
            "{$limit}",
        );
    }

    /** What can only pull an input up: something has to bring it back, and its own pull-up does not. */
    private function stuck(Inquiry $inquiry, SignalLine $line): ?Finding
    {
        // What a guard makes of it is its own affair: a test of the pair tells.
        $guard = $inquiry->tryPortWord($line->to, $line->in, 'input')?->choice();
        if ($guard === 'isolated' || $guard === 'protected' || $line->to->part->can(Ability::Isolates)) {
            return null;
        }
        $at = self::at($line);
        $down = $inquiry->tryPortWord($line->to, $line->in, 'pull_down');
        $up = $inquiry->tryPortWord($line->to, $line->in, 'pull_up');
        if ($up?->flag() === true) {
            return $inquiry->conclude(
                Verdict::Fails,
                "{$line->from->need->role} can only pull {$at} up, and so does its pull-up: it reads as high for ever. A sensor that sinks.",
            );
        }
        if ($down?->flag() === false) {
            return $inquiry->conclude(
                Verdict::Fails,
                "Nothing brings {$at} back down: {$line->from->need->role} can only pull it up. A pull-down of some kilohms.",
            );
        }
        if ($down === null) {
            $inquiry->miss("whether {$at} has a pull-down", self::where($line).'/pull_down');
        }

        return null;
    }

    private function module(Inquiry $inquiry, SignalLine $line): Finding
    {
        [$least, $most] = $this->level($inquiry, $line);
        $low = $inquiry->read($line->to, 'control_min', 'V_min', Bound::LeastNeeded);
        $high = $inquiry->read($line->to, 'control_max', 'V_max', Bound::MostStood);
        if ($most->exceeds($high)) {
            return $inquiry->conclude(
                Verdict::Danger,
                "{$most} on a control input that stands {$high}: it burns, and may stay closed.",
                $inquiry->margin($most, $high),
                "{$high}",
            );
        }
        if ($least->isBelow($low)) {
            return $inquiry->conclude(
                Verdict::Fails,
                "{$least} does not switch it: it asks for {$low}.",
                null,
                "at least {$low}",
            );
        }
        $fails = $this->drawn($inquiry, $line, 'control_current');
        $free = $inquiry->tryFlag($line->to, 'polarity_free');
        $free ??
            $inquiry->miss(
                "whether the control input of {$line->to->need->role} takes either polarity",
                "parts/{$line->to->part->ref}/specs/polarity_free",
            );
        if ($free === false) {
            $inquiry->remark(
                'Its control input has a polarity: plus to the signal that is switched, minus to common, unless its sheet says otherwise.',
            );
        }

        return $fails ??
            $inquiry->conclude(
                Verdict::Holds,
                "{$least} switches it ({$low} to {$high}).",
                $low->isPositive()
                    ? Quantity::min($inquiry->margin($most, $high), $inquiry->margin($low, $least))
                    : $inquiry->margin($most, $high),
                "{$low} to {$high}",
            );
    }

    private function coil(Inquiry $inquiry, SignalLine $line): Finding
    {
        [$least, $most] = $this->level($inquiry, $line);
        $rated = $inquiry->read($line->to, 'coil_voltage', 'V_c');
        $weak = $least->isBelow($rated->times(0.8));
        if ($weak || $most->exceeds($rated->times(1.1))) {
            return $inquiry->conclude(
                Verdict::Fails,
                $weak
                    ? "{$least} on a coil for {$rated}: it does not pull in."
                    : "{$most} on a coil for {$rated}: it overheats.",
                null,
                "80 to 110 % of {$rated}",
            );
        }
        $fails = $this->drawn($inquiry, $line, 'coil_current');

        return $fails ??
            $inquiry->conclude(
                Verdict::Holds,
                "{$most} on a coil for {$rated}. A diode across the coil, unless the output has one.",
                null,
                "80 to 110 % of {$rated}",
            );
    }

    private function driver(Inquiry $inquiry, SignalLine $line): Finding
    {
        [$least, $most] = $this->level($inquiry, $line);
        $wanted = $inquiry->read($line->to, 'signal_voltage', 'V_d');
        if ($most->exceeds($wanted->times(1.2))) {
            return $inquiry->conclude(
                Verdict::Fails,
                "{$most} on an input for {$wanted}: its opto-couplers burn without a resistor.",
                $inquiry->margin($most, $wanted),
                "{$wanted}",
            );
        }
        if ($least->isBelow($wanted->times(0.9))) {
            $inquiry->missUntil(
                Stage::Powered,
                "a test that {$line->to->need->role} takes every step at {$least}; a level shifter settles it",
                "parts/{$line->to->part->ref}/specs/signal_voltage",
            );

            return $inquiry->conclude(Verdict::Tight, "{$least} on an input made for {$wanted}.", null, "{$wanted}");
        }

        return $inquiry->conclude(Verdict::Holds, "{$most} on an input for {$wanted}.", null, "{$wanted}");
    }

    private function torch(Inquiry $inquiry, SignalLine $line): Finding
    {
        $wants = $inquiry->tryChoice($line->to, 'torch_switch') ?? 'not known';
        if ($wants === 'not known') {
            $inquiry->miss(
                "what the torch switch of {$line->to->need->role} wants",
                "parts/{$line->to->part->ref}/specs/torch_switch",
            );
            throw new InputMissing;
        }
        $from = $line->from->part;
        $kind = match (true) {
            $from->can(Ability::Switches), $from->can(Ability::Stops) => SwitchKind::of($inquiry, $line->from) ??
                $inquiry->lack("kind of {$line->from->need->role}"),
            default => SwitchKind::Transistor,
        };
        $contact = $kind === SwitchKind::Contacts;
        $inquiry->remark(
            "It wants a {$wants}; it gets ".
                ($contact ? 'a contact' : 'an output that conducts one way and never opens').
                '. A start word closes nothing without a speed word: test both before cutting.',
        );

        return $contact
            ? $inquiry->conclude(
                Verdict::Holds,
                'A contact closes the torch circuit. A welded contact keeps it burning: the main stop must cut it too.',
            )
            : $inquiry->conclude(
                Verdict::Fails,
                "The source wants a plain switch; {$line->from->need->role} has no contacts. A relay between them.",
            );
    }

    /**
     * Level of a board's output: what its port says, else the board's logic level.
     *
     * @return array{Quantity, Quantity} lowest, highest
     */
    private function level(Inquiry $inquiry, SignalLine $line): array
    {
        $own = $inquiry->tryPort($line->from, $line->out, 'voltage', 'V_o', Bound::Lowest);
        if ($own === null && $line->out->kind === PortKind::Outlet) {
            // It passes power on: what arrives is what its supply holds.
            $circuits = Circuits::of($inquiry->survey);
            $node = $circuits->topology->node("{$line->from->need->ref}.{$line->out->name}");
            $source = $node === null ? null : $circuits->topology->sourceOf($node);
            if ($source === null || $circuits->heldBy($source) === null) {
                $inquiry->lack("a supply that feeds {$line->from->need->role}");
            }

            return HeldVoltage::of($inquiry, ...$circuits->topology->at($source));
        }
        $ends = [Bound::Lowest, Bound::Highest];
        if ($own === null && $line->from->part->family->field('logic_voltage') !== null) {
            return array_map(
                static fn (Bound $end): Quantity => $inquiry->read($line->from, 'logic_voltage', 'V_o', $end),
                $ends,
            );
        }

        return array_map(
            static fn (Bound $end): Quantity => $inquiry->port($line->from, $line->out, 'voltage', 'V_o', $end),
            $ends,
        );
    }

    private function drawn(Inquiry $inquiry, SignalLine $line, string $key): ?Finding
    {
        $takes = $inquiry->tryRead($line->to, $key, 'I_c', Bound::Highest);
        $gives = $inquiry->tryPort($line->from, $line->out, 'rated_current', 'I_o', Bound::Lowest);
        if ($takes === null || $gives === null) {
            $takes === null
                ? $inquiry->miss(
                    "control current of {$line->to->need->role}",
                    "parts/{$line->to->part->ref}/specs/{$key}",
                )
                : $inquiry->miss(
                    "current that port {$line->out->name} of {$line->from->need->role} gives",
                    "parts/{$line->from->part->ref}/ports/{$line->out->name}/specs/rated_current",
                );

            return null;
        }

        // Pieces that no lead of their own leads to hang on this one together.
        $here = "{$line->to->need->ref}.{$line->in->name}";
        $leads = array_filter(
            $inquiry->build->leads,
            static fn (Lead $l): bool => in_array($here, [$l->from->text(), $l->to->text()], true),
        );
        $pieces = (int) ceil($line->to->need->quantity / max(1, count($leads)));
        $takes = $inquiry->together('Pieces on one output', 'I = n × I_c', 'I_c', $takes, $pieces, 'mA');

        return $takes->exceeds($gives)
            ? $inquiry->conclude(
                Verdict::Fails,
                ($pieces > 1 ? "{$pieces} of them take" : 'It takes').
                    " {$takes}; the output gives {$gives}. A driver stage between them.",
                $inquiry->margin($takes, $gives),
                "{$gives}",
            )
            : null;
    }

    /**
     * @return array{Quantity, Quantity} lowest, highest
     */
    private function supplyOf(Inquiry $inquiry, Survey $survey, SignalLine $line): array
    {
        $topology = Circuits::of($survey)->topology;
        foreach ($line->from->part->ports as $port) {
            $node = $topology->node("{$line->from->need->ref}.{$port->name}");
            $source = $node === null || $port->kind !== PortKind::Inlet ? null : $topology->sourceOf($node);
            if ($source !== null) {
                [$fitted, $its] = $topology->at($source);

                return HeldVoltage::of($inquiry, $fitted, $its);
            }
        }
        $inquiry->lack("a supply that feeds {$line->from->need->role}");
    }
}
