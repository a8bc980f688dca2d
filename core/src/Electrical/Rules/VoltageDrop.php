<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Air;
use Magpie\Core\Electrical\Ampacity;
use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Cures\LargerConductor;
use Magpie\Core\Electrical\Flow;
use Magpie\Core\Electrical\HeldVoltage;
use Magpie\Core\Electrical\InputWindow;
use Magpie\Core\Electrical\PowerLeads;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Conductors;

/** E04: the voltage that is lost on the way from a source to a load. */
final class VoltageDrop implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E04',
            'Voltage drop',
            'How much voltage is lost before it arrives, and does enough arrive?',
            Trade::Electrical,
            'ASTM B258 and IEC 60028 (gauges), IEC 60228 class 5 (metric); 3 % and 5 % are common practice, no source',
            [
                'holds' => Threshold::share('drop that holds', 0.03),
                'tight' => Threshold::share('drop above which it fails', 0.05),
            ],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $topology = Circuits::of($survey)->topology;
        foreach ($topology->listed() as $node => [$need, $role, $port]) {
            if ($port->kind === PortKind::Inlet && $port->draw !== null && $topology->wayBack($node) !== []) {
                yield new Subject('port', "{$need}.{$port->name}", "{$role}, port {$port->name}", [$need]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $circuits = Circuits::of($survey);
        $node = $circuits->topology->node($inquiry->subject->ref) ?? $inquiry->lack('this port');
        $source = $circuits->topology->sourceOf($node);
        if ($source === null) {
            $inquiry->lack('one supply that feeds it');
        }
        $worst = $this->worst($circuits, $node);
        $collapse = $worst === null ? $this->collapse($inquiry, $circuits, $node) : null;
        if ($collapse !== null) {
            return $collapse;
        }
        $arrives = $worst?->volts($node);
        $held = $worst?->volts($source);
        if ($worst === null || $arrives === null || $held === null) {
            $inquiry->lack('the voltage of its supply');
        }
        $inquiry->in($worst->scenario->name);
        $inquiry->absorb($circuits->restOf($source));
        $unsaid = [];
        $most = Quantity::of(0, 'V');
        foreach (array_reverse($circuits->topology->wayBack($node)) as $joint) {
            $lead = $circuits->topology->leadOf($joint);
            if ($joint->seat) {
                continue;
            }
            if ($lead === null) {
                // The way through a part, where its sheet says what it holds back.
                [$through, $outlet] = $circuits->topology->at($joint->b);
                if ($inquiry->tryPort($through, $outlet, 'resistance', 'R_'.$through->need->ref) === null) {
                    $unsaid[] = $through->need->role;
                }

                continue;
            }
            [$lost, $warmer] = $this->lost($inquiry, $circuits, $worst, $lead);
            if ($lost->exceeds($most)) {
                $most = $lost;
                $inquiry->because("leads/{$lead->ref}/conductor/size");
            }
            // The network was solved in the air it lies in: what its own load warms it by is taken off what arrives.
            $arrives = $arrives->minus($warmer);
        }
        $lost = $inquiry->leaning(
            $held->minus($arrives),
            static fn (): array => PowerLeads::shares($worst, $worst->demands($source)),
        );

        return $this->arriving($inquiry, $circuits, [$source, $node], $held, $held->minus($lost), $unsaid);
    }

    /** The scenario in which least arrives; null where none is solved. */
    private function worst(Circuits $circuits, int $node): ?Flow
    {
        $worst = $arrives = null;
        foreach ($circuits->flows() as $flow) {
            $volts = $flow->volts($node);
            if ($volts !== null && ($arrives === null || $volts->isBelow($arrives))) {
                [$worst, $arrives] = [$flow, $volts];
            }
        }

        return $worst;
    }

    private function collapse(Inquiry $inquiry, Circuits $circuits, int $node): ?Finding
    {
        foreach ($circuits->flows() as $flow) {
            $why = $flow->whyUnsolved($node);
            if ($why !== null && str_starts_with($why, Flow::COLLAPSES)) {
                $inquiry->in($flow->scenario->name);

                return $inquiry->conclude(
                    Verdict::Fails,
                    ucfirst($why).'. Thicker or shorter leads, or less load on them.',
                );
            }
        }

        return null;
    }

    /**
     * @return array{Quantity, Quantity} what a lead loses, and how much of that because its load warms it
     */
    private function lost(Inquiry $inquiry, Circuits $circuits, Flow $worst, Lead $lead): array
    {
        $size = PowerLeads::size($inquiry, $lead);
        $length = $inquiry->given(
            "length of {$lead->ref}",
            'l',
            $lead->length,
            $lead->lengthRests,
            "leads/{$lead->ref}/length",
        );
        $current = $worst->current($lead->ref) ?? $inquiry->lack("the current of {$lead->ref}");
        foreach ($worst->behind($lead->ref) as $demand) {
            $inquiry->absorb($demand->inputs);
        }
        PowerLeads::missing(
            $inquiry,
            array_map(static fn (Flow $f): array => $f->behind($lead->ref), $circuits->flows()),
        );
        $line = $circuits->lineResistance($lead) ?? Conductors::strandedResistance($size);
        $loop = $circuits->loopResistance($lead) ?? $line->times($length);
        $air = Air::of($inquiry->build, $lead)->degrees();
        $may = Ampacity::figure($inquiry->build, $lead);
        $warm = Conductors::temperature($air, $may === null ? 1.0 : min(1.0, $current->over($may)->in('')));
        $more = Conductors::warmth($warm) / Conductors::warmth($air);
        $inquiry->work(
            sprintf('Lead %s, out and back, at %.0f °C of its conductor', $lead->ref, $warm),
            'U = I × 2 × l × r / n',
            [
                'I' => $current,
                'l' => $length,
                'r' => $line->times($more),
                'n' => Quantity::ratio($lead->effectiveConductors()),
            ],
            $lost = $current->times($loop)->times($more),
            'V',
        );

        return [$lost, $current->times($loop)->times($more - 1)];
    }

    /**
     * @param  array{int, int}  $ends  of its source, and where it arrives
     * @param  list<string>  $unsaid  parts on the way whose resistance no sheet says
     */
    private function arriving(
        Inquiry $inquiry,
        Circuits $circuits,
        array $ends,
        Quantity $held,
        Quantity $arrives,
        array $unsaid,
    ): Finding {
        $drop = $inquiry->work(
            'Lost on the way',
            'U = V − V_a',
            ['V' => $held, 'V_a' => $arrives],
            $held->minus($arrives),
            'V',
        );
        $share = $inquiry->work(
            'Share of the supply',
            'u = U / V',
            ['U' => $drop, 'V' => $held],
            $drop->over($held),
            '%',
        );
        $onMains = $circuits->topology->shapes[$ends[0]]->mains;
        $least = InputWindow::lowest($inquiry, ...[...$circuits->topology->at($ends[1]), $onMains]);
        // At the low end of what its supply holds, less by as much arrives.
        $low = HeldVoltage::lowest($inquiry, ...$circuits->topology->at($ends[0]));
        $may = $arrives->minus(Quantity::max($held->minus($low), Quantity::of(0, 'V')));
        $verdict = $inquiry->band(
            $share,
            Quantity::ratio(1),
            $inquiry->threshold('holds'),
            $inquiry->threshold('tight'),
            Verdict::Fails,
        );
        $says = "{$arrives} of {$held} arrives; {$drop} ({$share}) is lost on the way.";
        if ($least !== null && $may->isBelow($least)) {
            $starved = ! InputWindow::isWithinNominal($may, $least);
            $verdict = $starved ? Verdict::Fails : Verdict::worst($verdict, Verdict::Tight);
            $says .= match (true) {
                ! $starved => " {$may} at the least; its sheet begins at {$least}, a nominal voltage, which falls short by a little in use.",
                $arrives->isBelow($least) => " It needs at least {$least}.",
                default => " At the low end of what its supply holds {$may} arrive; it needs at least {$least}.",
            };
        }

        return $inquiry->conclude(
            $verdict,
            $unsaid === []
                ? $says
                : "{$says} Not counted, no sheet says it: the resistance of ".implode(' and of ', $unsaid).'.',
            $inquiry->margin($share, $inquiry->threshold('tight')),
            "{$inquiry->threshold('holds')->to('%')} holds, above {$inquiry->threshold('tight')->to('%')} fails",
        );
    }

    public function cures(): array
    {
        return [new LargerConductor];
    }

    public function examples(): Examples
    {
        $over = static function (string $length): array {
            $lead = ['conductor' => ['size' => '18 AWG', 'evidence' => 'datasheet'], 'length' => $length];

            return array_replace_recursive(ContactLoad::bedOn(2), ['leads' => [$lead]]);
        };

        return new Examples(static fn (): array => $over('4 m'), static fn (): array => $over('0.9 m'), Verdict::Fails);
    }
}
