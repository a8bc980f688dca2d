<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Cures\OtherSource;
use Magpie\Core\Electrical\HeldVoltage;
use Magpie\Core\Electrical\InputWindow;
use Magpie\Core\Electrical\SpindleLine;
use Magpie\Core\Electrical\Topology;
use Magpie\Core\Electrical\VoltageSelectors;
use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\OtherPart;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E06: does what a source holds lie inside what an input stands; and is each input fed once. */
final class VoltageWindow implements Curable
{
    /** How many times what a part stands surely burns it: below that it may, or may live short. Common practice, no source. */
    private const SURELY = 1.1;

    public function card(): Card
    {
        return new Card(
            'E06',
            'Voltage window',
            'Does this input stand the voltage it is joined to, and is it fed exactly once?',
            Trade::Electrical,
            "Maker's limits; 90 % and 95 % of the weakest part on a motor rail are common practice, no source",
            [
                'holds' => Threshold::share('share of the weakest part\'s rating that holds on a motor rail', 0.9),
                'tight' => Threshold::share('share above which a motor rail is a danger', 0.95),
            ],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $topology = Circuits::of($survey)->topology;
        foreach ($topology->each() as $node => [$fitted, $port]) {
            if ($port->draw === null && ! $topology->isReached($node)) {
                // A contact nothing feeds: what hangs behind it says so, or it switches signals.
                continue;
            }
            if (
                $port->kind === PortKind::Inlet &&
                ($port->draw !== null || $fitted->part->portSpec($port, 'max_voltage') !== null)
            ) {
                yield new Subject(
                    'port',
                    "{$fitted->need->ref}.{$port->name}",
                    "{$fitted->need->role}, port {$port->name}",
                    [$fitted->need->ref],
                );
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $topology = Circuits::of($survey)->topology;
        $node = $topology->node($inquiry->subject->ref) ?? $inquiry->lack('this port');
        [$fitted, $port] = $topology->at($node);
        $fed = $this->fed($inquiry, $topology, $node);
        if ($fed instanceof Finding) {
            return $fed;
        }
        [$where, $low, $high] = $fed;
        $onMains = $topology->shapes[$topology->sourceOf($node) ?? $node]->mains;
        $max = InputWindow::highest($inquiry, $fitted, $port, $onMains);
        $min = InputWindow::lowest($inquiry, $fitted, $port, $onMains);
        if ($max === null) {
            $inquiry->miss("highest voltage {$fitted->need->role} accepts");
        }
        // A contact has no lowest voltage: only what takes something for itself has one.
        if ($min === null && $port->draw !== null) {
            $inquiry->miss("lowest voltage {$fitted->need->role} accepts");
        }
        // What is too little at one end and too much at the other is the danger.
        $burns = $max !== null && $high->exceeds($max) && ! InputWindow::isWithinNominal($high, $max);
        $short = $min !== null && $low->isBelow($min) ? $min : null;
        if ($short !== null && ! $burns && ! InputWindow::isWithinNominal($low, $short)) {
            return $inquiry->conclude(
                Verdict::Fails,
                "{$where} may hold as little as {$low}; this input needs {$short}.",
                $inquiry->margin($short, $low),
                "at least {$short}",
            );
        }
        if ($max === null) {
            return $inquiry->unproven();
        }

        return self::shares($fitted, $port) && $topology->feedsMotors($node)
            ? $this->besideMotors($inquiry, $where, $high, $max, $short === null ? null : self::falls($where, $low, $short))
            : $this->against($inquiry, $where, $high, $max, $short === null ? null : self::falls($where, $low, $short));
    }

    /**
     * @return Finding|array{string, Quantity, Quantity} where it is fed from, the least and the most that is held there; or what is wrong with that
     */
    private function fed(Inquiry $inquiry, Topology $topology, int $node): Finding|array
    {
        $sources = $topology->sourcesOf($node);
        if ($sources === []) {
            $drive = SpindleLine::driveOf($topology, $inquiry->subject->ref);

            return $drive === null
                ? $inquiry->lack('a lead from a supply to it')
                : $this->behindDrive($inquiry, $topology->at($node)[0], $drive);
        }
        if (count($sources) > 1) {
            $names = implode(' and ', array_map(static fn (int $n): string => $topology->roleAt($n), $sources));

            return $inquiry->conclude(
                Verdict::Fails,
                "Fed from {$names} at once. One of them has to go, or be parted by an isolating stage.",
                null,
                'one source for each input',
            );
        }
        [$supply, $out] = $topology->at($sources[0]);
        $made = $this->made($inquiry, $topology, $node) ?? [
            $supply->need->role,
            ...HeldVoltage::of($inquiry, $supply, $out),
        ];
        if (! $out->mains) {
            $inquiry->because(Inquiry::whereOf($supply, $out, 'voltage'));
        }

        return $made;
    }

    private static function falls(string $where, Quantity $low, Quantity $min): string
    {
        return "{$where} may hold as little as {$low}; the sheet of what it feeds begins at {$min}, a nominal voltage, which supplies fall short of by a little.";
    }

    private static function share(Inquiry $inquiry, Quantity $high, Quantity $max): Quantity
    {
        return $inquiry->work(
            'Share of what it stands',
            's = V / V_max',
            ['V' => $high, 'V_max' => $max],
            $high->over($max),
            '%',
        );
    }

    /**
     * @param  string|null  $falls  what to say of a supply that may hold a little less than a sheet begins at
     */
    private function against(Inquiry $inquiry, string $where, Quantity $high, Quantity $max, ?string $falls): Finding
    {
        $share = self::share($inquiry, $high, $max);
        $at = "{$where} holds {$high}";
        [$verdict, $says] = match (true) {
            ! $high->exceeds($max) => $falls === null
                ? [Verdict::Holds, "{$at}; this input stands {$max}."]
                : [Verdict::Tight, $falls],
            InputWindow::isWithinNominal($high, $max) => [
                Verdict::Tight,
                "{$at}; its sheet ends at {$max}, a nominal voltage, which supplies pass by a little: turn the supply down to it, or ask what it stands.",
            ],
            default => [Verdict::Danger, self::burns($at, $high, $max, $share)],
        };

        return $inquiry->conclude(
            $verdict,
            $says,
            $inquiry->margin($high, InputWindow::withGive($max)),
            "at most {$max}",
        );
    }

    /**
     * Motors on one rail with it push voltage back into it when they brake.
     *
     * @param  string|null  $falls  as for against()
     */
    private function besideMotors(Inquiry $inquiry, string $where, Quantity $high, Quantity $max, ?string $falls): Finding
    {
        $share = self::share($inquiry, $high, $max);
        $inquiry->remark(
            'Motors on this rail push voltage back into it when they brake: the weakest part is kept clear of its rating.',
        );
        $tight = $inquiry->threshold('tight');
        $verdict = $inquiry->band($high, $max, $inquiry->threshold('holds'), $tight, Verdict::Danger);
        $at = "{$where} holds {$high}";
        $says = match (true) {
            $falls !== null && $verdict !== Verdict::Danger => $falls,
            $high->exceeds($max) => self::burns($at, $high, $max, $share),
            $verdict === Verdict::Danger => "{$at}; the weakest part here stands {$max} ({$share}). What the motors push back when they brake can burn it.",
            $verdict === Verdict::Tight => "{$at}; the weakest part here stands {$max}: {$share} of it is used.",
            default => "{$at}; this input stands {$max}.",
        };

        return $inquiry->conclude(
            $falls === null ? $verdict : Verdict::worst($verdict, Verdict::Tight),
            $says,
            $inquiry->margin($high, $max->times($tight)),
            "90 % of {$max} holds, above 95 % is a danger",
        );
    }

    private static function burns(string $at, Quantity $high, Quantity $max, Quantity $share): string
    {
        return "{$at}; the weakest part here stands {$max} ({$share})".
            ($high->exceeds($max->times(self::SURELY)) ? '. It burns.' : ': more than it is made for.');
    }

    /**
     * A voltage that a board makes itself on the way: of a selector, as it is set, or of an output that states its own.
     *
     * @return array{string, Quantity, Quantity}|null where, lowest, highest; null when what the source holds arrives
     */
    private function made(Inquiry $inquiry, Topology $topology, int $node): ?array
    {
        foreach ($topology->wayBack($node) as $joint) {
            if ($joint->lead !== null) {
                continue;
            }
            [$board, $outlet] = $topology->at($joint->b);
            $bank = $inquiry->tryPortWord($board, $outlet, 'bank')?->value;
            if (is_string($bank)) {
                $where = "selector {$bank} of {$board->need->role}";
                $volts = VoltageSelectors::of($inquiry->build, $board->need->ref, $bank);
                if ($volts === null) {
                    $inquiry->lack("what {$where} is set to");
                }
                $inquiry->given(
                    "voltage of {$where}",
                    'V',
                    $volts,
                    Evidence::Measured,
                    VoltageSelectors::key($board->need->ref, $bank),
                );

                return [ucfirst($where), $volts, $volts];
            }
            $low = $inquiry->tryPort($board, $outlet, 'voltage', 'V', Bound::Lowest);
            $high = $inquiry->tryPort($board, $outlet, 'voltage', 'V', Bound::Highest);
            if ($low !== null && $high !== null) {
                return ["{$board->need->role}, output {$outlet->name},", $low, $high];
            }
        }

        return null;
    }

    /** What motors push back harms electronics on their rail; a fan, a lamp or a heater bears it for the moment it lasts. */
    private static function shares(Fitted $fitted, Port $port): bool
    {
        return $port->draw === Draw::Driver ||
            $port->draw === Draw::Converter ||
            $fitted->part->can(Ability::Electronic) ||
            $fitted->part->can(Ability::HasChannels);
    }

    /** A drive makes its spindle's voltage itself, and never more than what it is fed with. */
    private function behindDrive(Inquiry $inquiry, Fitted $spindle, Fitted $drive): Finding
    {
        $mains = $inquiry->mains();
        $rated = $inquiry->read($spindle, 'rated_voltage', 'V_r');
        $most = $inquiry->work('What it stands', 'V_max = 1.1 × V_r', ['V_r' => $rated], $rated->times(1.1), 'V');
        if ($mains->exceeds($most)) {
            $inquiry->miss("that the output of {$drive->need->role} is limited to {$rated}");

            return $inquiry->conclude(
                Verdict::Tight,
                "{$drive->need->role} can give up to {$mains} to a spindle for {$rated}: its voltage limit must be set first.",
                $inquiry->margin($mains, $most),
                "{$most}",
            );
        }

        return $inquiry->conclude(
            Verdict::Holds,
            "{$drive->need->role} gives at most {$mains}; the spindle is made for {$rated}.",
            $inquiry->margin($mains, $most),
            "{$most} (IEC 60034-1, a tenth above its rating, from memory)",
        );
    }

    public function cures(): array
    {
        return [new OtherSource, new OtherPart];
    }

    public function examples(): Examples
    {
        $on = static fn (string $volts): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => $volts, 'rated_current' => '10 A']),
                Examples::part('drv', 'motor_driver', [
                    'min_voltage' => '12 V',
                    'max_voltage' => '35 V',
                    'supply_current' => '2 A',
                ]),
            ],
            ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'drv.power']]],
        );

        return new Examples(static fn (): array => $on('36 V'), static fn (): array => $on('24 V'));
    }
}
